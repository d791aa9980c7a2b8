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
        $minus = '(?<minus>(?<![\p{L}\p{N}])-)?';
        $number = "(?<whole>\\d+(?:[{$groups}]\\d+)*)(?<parts>{$mark}\\d+)?|(?<!\\d)(?<only>{$mark}\\d+)";
        if (preg_match("~{$minus}(?:{$number})~u", $cell, $found, PREG_UNMATCHED_AS_NULL) === 1) {
            $whole = preg_replace('~\D~', '', $found['whole'] ?? '0');
            $value = (float) ($whole.'.'.substr($found['parts'] ?? $found['only'] ?? '.0', 1));

            return $found['minus'] === null ? $value : -$value;
        }

        return null;
    }
}
