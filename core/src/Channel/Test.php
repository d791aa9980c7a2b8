<?php

declare(strict_types=1);

namespace Vestigon\Core\Channel;

/** One condition on one value. Capitals do not matter (common practice). */
final readonly class Test
{
    /**
     * @param string $key what is looked at: `source`, `medium`, `campaign` … or any parameter's key
     * @param list<string>|null $in the values that meet it
     * @param string|null $matches a regular expression (PCRE) that the value must match somewhere
     */
    public function __construct(public string $key, public ?array $in, public ?string $matches) {}

    public function isMet(string $value): bool
    {
        if ($this->in !== null) {
            return in_array(mb_strtolower($value), $this->in, true);
        }

        return $this->matches !== null && @preg_match(self::pattern($this->matches), $value) === 1;
    }

    public static function pattern(string $expression): string
    {
        return '~'.str_replace('~', '\~', $expression).'~iu';
    }

    public function words(): string
    {
        return match (true) {
            $this->in !== null && count($this->in) === 1 => $this->in[0] === '' ? "{$this->key} is empty" : "{$this->key} is {$this->in[0]}",
            $this->in !== null => "{$this->key} is one of ".implode(', ', $this->in),
            default => "{$this->key} matches {$this->matches}",
        };
    }
}
