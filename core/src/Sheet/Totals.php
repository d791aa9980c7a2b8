<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** Tells rows of totals: they name nothing and say no text. */
final readonly class Totals
{
    private const WORD = 'Total';

    private string $pattern;

    /** @param list<string> $words that a row of totals may begin with, beside the usual one */
    public function __construct(array $words = [])
    {
        $words = array_map(static fn (string $w): string => preg_quote($w, '/'), [self::WORD, ...$words]);
        $this->pattern = '/^(?:'.implode('|', $words).')(?:[\s:]|$)/iu';
    }

    /**
     * @param array<int, string> $cells the row's cells as they are understood, by place
     * @param string|null $level what the row is of; null: that is not said
     */
    public function is(array $cells, Layout $layout, ?string $level): bool
    {
        foreach ($cells as $first => $cell) {
            if ($cell !== '') {
                return preg_match($this->pattern, $cell) === 1 && ! $this->names($first, $cells, $layout, $level);
            }
        }

        return false;
    }

    /**
     * Does it have an id of its own, a text, or a name, beside its first cell?
     *
     * @param array<int, string> $cells
     */
    private function names(int $first, array $cells, Layout $layout, ?string $level): bool
    {
        foreach ($layout->columns as $place => $column) {
            $means = $column->means;
            $tells = match ($means->says) {
                Says::Id => $means->level === null || $means->level === $level,
                Says::Name, Says::Slot => true,
                default => false,
            };
            if ($tells && $place !== $first && ($cells[$place] ?? '') !== '') {
                return true;
            }
        }

        return false;
    }
}
