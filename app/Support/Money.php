<?php

namespace App\Support;

/** Sums in the minor units of a currency, as people write them. */
final class Money
{
    /** Decimal places of a currency, by ISO 4217 as PHP's intl has it. */
    public static function digits(string $currency): int
    {
        $format = new \NumberFormatter("en@currency={$currency}", \NumberFormatter::CURRENCY);

        return (int) $format->getAttribute(\NumberFormatter::FRACTION_DIGITS);
    }

    /** With its sign, and separators: €1,204.50. */
    public static function text(int $minor, string $currency): string
    {
        $format = new \NumberFormatter('en', \NumberFormatter::CURRENCY);

        return (string) $format->formatCurrency($minor / 10 ** self::digits($currency), $currency);
    }

    /** As a sheet has it: 1204.50. */
    public static function plain(int $minor, string $currency): string
    {
        $digits = self::digits($currency);

        return number_format($minor / 10 ** $digits, $digits, '.', '');
    }
}
