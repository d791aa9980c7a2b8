<?php

declare(strict_types=1);

namespace Vestigon\Core\Naming;

use Vestigon\Core\Plan\Vocabulary;

/** One part of a naming pattern: a word of a list, a text of some form, or anything. */
final readonly class NamePart
{
    /** @var array<string, true> */
    public array $allowed;

    /**
     * @param list<string> $words the words that are allowed; empty: any
     * @param string|null $matches a regular expression (PCRE) for the whole text
     * @param string|null $default what it says where nothing is said
     * @param array<string, string> $meanings word → what it means, in one line
     */
    public function __construct(
        public string $name,
        public array $words = [],
        public ?string $matches = null,
        public bool $optional = false,
        public ?string $default = null,
        public array $meanings = [],
    ) {
        $this->allowed = array_fill_keys($words, true);
    }

    /** Has a text the form that is asked for? */
    public function hasForm(string $text): bool
    {
        return $this->matches === null || @preg_match(self::pattern($this->matches), $text) === 1;
    }

    /** What is wrong with a text for this part; null if nothing is. */
    public function trouble(string $text, string $separator): ?string
    {
        return match (true) {
            $text === '' => "the part {$this->name} is empty",
            str_contains($text, $separator) => "“{$text}” holds the separator {$separator}",
            $this->words !== [] && ! isset($this->allowed[$text]) => "“{$text}” is not one of "
                .implode(', ', $this->words),
            ! $this->hasForm($text) => "“{$text}” "
                .'does not '."have the form {$this->matches}",
            default => null,
        };
    }

    /** A text as it must be, where it is only written otherwise: by capitals, white space, or a slip. */
    public function mended(string $text, string $separator): ?string
    {
        $ways = $this->words === []
            ? [
                $text,
                mb_strtolower($text),
                mb_strtoupper($text),
                (string) preg_replace('/\s+/u', '-', mb_strtolower($text)),
            ]
            : [$text, (new Vocabulary(array_fill_keys($this->words, null)))->judged($text)->use ?? $text];
        foreach ($ways as $way) {
            if ($this->trouble($way, $separator) === null) {
                return $way;
            }
        }

        return null;
    }

    public static function pattern(string $expression): string
    {
        return '~^(?:'.str_replace('~', '\~', $expression).')$~uD';
    }
}
