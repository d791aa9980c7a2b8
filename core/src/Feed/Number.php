<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** The first number in a cell, however it is written: `1,299.00 EUR`, `EUR 1'299`, `-3`. */
final class Number
{
    /**
     * @param '.'|',' $decimal the mark between whole and parts; the other one only groups digits
     * @return float|null null: there is none
     */
    public static function first(string $cell, string $decimal): ?float
    {
        $mark = preg_quote($decimal);
        $groups = ($decimal === '.' ? ',' : '\.')."\\s\u{a0}\u{2009}\u{202f}'’";
        $number = "~(?<minus>(?<![\\p{L}\\p{N}])-)?(?<whole>\\d+(?:[{$groups}]\\d+)*)?(?<parts>(?(whole)|(?<!\\d)){$mark}\\d+)?~u";
        if (preg_match_all($number, $cell, $all, PREG_SET_ORDER | PREG_UNMATCHED_AS_NULL) === false) {
            return null;
        }
        foreach ($all as $one) {
            if ($one['whole'] !== null || $one['parts'] !== null) {
                $digits = preg_replace('~\D~', '', $one['whole'] ?? '0');
                $value = (float) ($digits.'.'.substr($one['parts'] ?? '.0', 1));

                return $one['minus'] === null ? $value : -$value;
            }
        }

        return null;
    }
}
