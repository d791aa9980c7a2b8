<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** One condition on a cell of an item. Capitals do not matter, unless it is exact. */
final class CellTest
{
    /** An expression that has not found its answer in so many steps has none. */
    private const STEPS = 100_000;

    /** So many answers are remembered: many columns have few values. */
    private const REMEMBERED = 256;

    /** @var list<string> */
    private readonly array $words;

    /** @var array<string, bool> */
    private array $known = [];

    /**
     * @param list<string> $words what it is compared with; of an expression the one
     * @param float|bool $against the number, or whether it is to be empty
     * @param '.'|',' $decimal
     */
    public function __construct(
        public readonly string $column,
        public readonly Comparison $how,
        array $words,
        private readonly float|bool $against = true,
        private readonly bool $isExact = false,
        private readonly string $decimal = '.',
    ) {
        $this->words = $how === Comparison::Matches || $isExact ? $words : array_map(self::folded(...), $words);
    }

    public function holds(string $cell): bool
    {
        if (isset($this->known[$cell])) {
            return $this->known[$cell];
        }
        $holds = $this->judge($cell);
        if (count($this->known) < self::REMEMBERED) {
            $this->known[$cell] = $holds;
        }

        return $holds;
    }

    private function judge(string $cell): bool
    {
        if ($this->how === Comparison::IsEmpty) {
            return ($cell === '') === $this->against;
        }
        if ($this->how === Comparison::Over || $this->how === Comparison::Under) {
            $number = Number::first($cell, $this->decimal);

            return $number !== null
                && ($this->how === Comparison::Over ? $number > $this->against : $number < $this->against);
        }
        if ($this->how === Comparison::Matches) {
            return @preg_match(self::pattern($this->words[0], $this->isExact), $cell) === 1;
        }
        $cell = $this->isExact ? $cell : self::folded($cell);

        return match ($this->how) {
            Comparison::In => in_array($cell, $this->words, true),
            Comparison::Has => str_contains($cell, $this->words[0]),
            Comparison::Begins => str_starts_with($cell, $this->words[0]),
            default => str_ends_with($cell, $this->words[0]),
        };
    }

    /** The expression as PCRE2 takes it: Unicode, and with an end to its patience. */
    public static function pattern(string $expression, bool $isExact): string
    {
        return '~(*LIMIT_MATCH='.
            self::STEPS.
            ')'.
            str_replace('~', '\~', $expression).
            '~u'.
            ($isExact ? '' : 'i');
    }

    private static function folded(string $text): string
    {
        return mb_check_encoding($text, 'ASCII')
            ? strtolower($text)
            : mb_convert_case($text, MB_CASE_FOLD, 'UTF-8');
    }
}
