<?php

declare(strict_types=1);

namespace Vestigon\Core\Channel;

/** One condition on one value. Capitals do not matter (common practice). */
final readonly class Test
{
    /** @var array<string, true> */
    private array $words;

    /**
     * @param string $key what is looked at: `source`, `medium`, `campaign` … or any parameter's key
     * @param list<string> $in the words that meet it
     * @param list<string> $begins words that begin with one of these meet it
     * @param list<string> $ends words that end with one of these meet it
     * @param string|null $matches a regular expression (PCRE) that the value must match somewhere; then there are no
     *     words
     */
    public function __construct(
        public string $key,
        public array $in = [],
        public array $begins = [],
        public array $ends = [],
        public ?string $matches = null,
    ) {
        $this->words = array_fill_keys($in, true);
    }

    /** Is it met by whole words only? */
    public function isOfWords(): bool
    {
        return $this->matches === null && $this->begins === [] && $this->ends === [];
    }

    /** @param string $lower the value in lower-case letters */
    public function isMet(string $value, string $lower): bool
    {
        if (isset($this->words[$lower])) {
            return true;
        }
        if ($this->matches !== null) {
            return @preg_match(self::pattern($this->matches), $value) === 1;
        }
        foreach ($this->begins as $begin) {
            if (str_starts_with($lower, $begin)) {
                return true;
            }
        }
        foreach ($this->ends as $end) {
            if (str_ends_with($lower, $end)) {
                return true;
            }
        }

        return false;
    }

    public static function pattern(string $expression): string
    {
        return '~'.str_replace('~', '\~', $expression).'~iu';
    }

    public function words(): string
    {
        if ($this->matches !== null) {
            return "{$this->key} matches {$this->matches}";
        }
        $ways = [
            match (true) {
                $this->in === [] => '',
                count($this->in) > 1 => 'is one of '.self::listed($this->in),
                $this->in[0] === '' => 'is empty',
                default => "is {$this->in[0]}",
            },
            $this->begins === [] ? '' : 'begins with '.self::listed($this->begins),
            $this->ends === [] ? '' : 'ends with '.self::listed($this->ends),
        ];

        return "{$this->key} ".implode(' or ', array_filter($ways));
    }

    /** @param list<string> $words */
    private static function listed(array $words): string
    {
        return implode(', ', array_map(static fn (string $w): string => $w === '' ? 'nothing' : $w, $words));
    }
}
