<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** Long numbers as a spreadsheet leaves them: rounded to fifteen digits, written short, grouped. */
final class DamagedNumber
{
    private const DAMAGED = '/^(?:\d+(?:[.,]\d+)?E\+\d+|\d{15}0+|\d{1,3}(?:(?:\.\d{3})+|(?:,\d{3})+)|\d+\.0+)$/i';

    private const CERTAIN_DIGITS = 15;

    /**
     * @param string $text as it is understood
     * @param string|int|float|null $cell as it was read
     */
    public static function is(string $text, string|int|float|null $cell): bool
    {
        return preg_match(self::DAMAGED, $text) === 1
            || (! is_string($cell) && strlen(ltrim($text, '-')) > self::CERTAIN_DIGITS);
    }
}
