<?php

declare(strict_types=1);

namespace Vestigon\Core\Numbers;

use Brick\Math\BigDecimal;

/** A report's column of amounts, which can be added up: every cell is a plain number, written in one manner. */
final readonly class Amounts
{
    private const POINT = '/^-?(?:\d+|\d{1,3}(?:,\d{3})+)(?:\.\d+)?$/';

    private const COMMA = '/^-?(?:\d+|\d{1,3}(?:\.\d{3})+)(?:,\d+)?$/';

    /** What is named so is divided by something: its sum would be nonsense (common practice). */
    private const DIVIDED = '/\b(?:avg|average|mean|rate|ratio|share|per|pct|percent|position|rank|score|index|year|id'
        .'|number|cp[acmlv]|ctr|cvr|roas)\b|%|\//i';

    private function __construct(public int $at, private bool $hasComma) {}

    /**
     * @param list<string> $cells of the column, as they are understood
     * @param bool $isComma what is meant where both can be: 1,234
     */
    public static function of(int $at, array $cells, bool $isComma): ?self
    {
        $filled = array_filter($cells, static fn (string $cell): bool => $cell !== '');
        $all = static fn (string $form): bool => $filled !== [] && preg_grep($form, $filled) === $filled;
        [$point, $comma] = [$all(self::POINT), $all(self::COMMA)];

        return $point || $comma ? new self($at, $comma && ($isComma || ! $point)) : null;
    }

    /** May it be added up, by what it is called? */
    public static function isSum(string $heading): bool
    {
        return preg_match(self::DIVIDED, $heading) !== 1;
    }

    /**
     * @param list<string> $cells
     * @return string their sum, exact, in the manner of the column; a cell that is no number after all counts as none
     */
    public function sum(array $cells): string
    {
        $sum = BigDecimal::zero();
        $form = $this->hasComma ? self::COMMA : self::POINT;
        $plain = $this->hasComma ? ['.' => '', ',' => '.'] : [',' => ''];
        foreach (array_filter($cells, static fn (string $c): bool => preg_match($form, $c) === 1) as $cell) {
            $sum = $sum->plus(strtr($cell, $plain));
        }

        return $this->hasComma ? strtr((string) $sum, '.', ',') : (string) $sum;
    }
}
