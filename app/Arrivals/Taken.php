<?php

namespace App\Arrivals;

use Vestigon\Core\Url\Query;

/** Takes an arrived URL apart for the ribbon: what belongs to the page, what to the plan, what is a click ID. */
final class Taken
{
    /**
     * @param list<string> $planKeys
     * @param list<string> $clickIdKeys
     * @return list<array<string, string|null>> segments; their texts, put end to end, are the URL
     */
    public static function apart(string $url, array $planKeys, array $clickIdKeys): array
    {
        preg_match_all('~^[^?#]+|[?&][^&#]*|#.*$~s', $url, $found);
        $most = config('limits.arrival_pairs');
        if (count($found[0]) > $most) {
            $found[0] = [...array_slice($found[0], 0, $most), implode('', array_slice($found[0], $most))];
        }

        return array_map(static function (string $text) use ($planKeys, $clickIdKeys): array {
            $key = Query::decoded(substr($text, 1, strcspn($text, '=', 1)));
            $role = match (true) {
                in_array($key, $clickIdKeys, true) => 'click-id',
                in_array($key, $planKeys, true) => 'suffix',
                default => 'landing',
            };

            return ['text' => $text, 'role' => $role, 'slot' => null, 'level' => null, 'node' => null, 'name' => null, 'token' => null, 'field' => null];
        }, $found[0]);
    }
}
