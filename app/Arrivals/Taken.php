<?php

namespace App\Arrivals;

use App\Support\Stretch;
use Vestigon\Core\Url\QueryPiece;
use Vestigon\Core\Url\QueryText;

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
        $pieces = QueryText::ofUrl($url)->pieces;
        $most = config('limits.arrival_pairs');
        $rest = implode(
            '',
            array_map(static fn (QueryPiece $p): string => $p->behind($p->mark), array_splice($pieces, $most)),
        );
        $segments = array_map(static function (QueryPiece $piece) use ($planKeys, $clickIdKeys): array {
            $key = $piece->isParameter ? $piece->name() : null;
            $role = match (true) {
                in_array($key, $clickIdKeys, true) => 'click-id',
                in_array($key, $planKeys, true) => 'suffix',
                default => 'landing',
            };

            return Stretch::of($piece->behind($piece->mark), $role);
        }, $pieces);

        return $rest === '' ? $segments : [...$segments, Stretch::of($rest, 'landing')];
    }
}
