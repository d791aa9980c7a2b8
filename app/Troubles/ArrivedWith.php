<?php

namespace App\Troubles;

/** Where a session has what it has arrived with. */
final class ArrivedWith
{
    /**
     * @param string $name what channel rules call a key; `channel`: source and medium together,
     *     `letter / email`; `ad-campaign`: the number of the campaign
     */
    public static function column(string $name): string
    {
        return match ($name) {
            'source', 'medium', 'campaign', 'content', 'term' => "s.{$name}",
            'ad-campaign' => 's.campaign_id',
            'channel' => "concat(s.source, ' / ', s.medium)",
            default => throw new \LogicException("nothing arrives as {$name}"),
        };
    }
}
