<?php

namespace App\Troubles;

/** Where a session has what it has arrived with. */
final class ArrivedWith
{
    /**
     * Has a session arrived with one of some values? With a mark for each of them.
     *
     * @param list<string> $values
     */
    public static function oneOf(string $name, array $values): string
    {
        return self::column($name).' in ('.implode(', ', array_fill(0, count($values), '?')).')';
    }

    /**
     * @param string $name what channel rules call a key; `channel`: source and medium together,
     *     `letter / email`; `ad-campaign`: the number of the campaign; `doubled`: keys that arrived more than once;
     *     `lost`: the own host that a stranger came from
     */
    public static function column(string $name): string
    {
        return match ($name) {
            'doubled' => 's.doubled',
            'lost' => 's.lost_from',
            'source', 'medium', 'campaign', 'content', 'term' => "s.{$name}",
            'ad-campaign' => 's.campaign_id',
            'channel' => "concat(s.source, ' / ', s.medium)",
            default => throw new \LogicException("nothing arrives as {$name}"),
        };
    }
}
