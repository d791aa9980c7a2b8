<?php

namespace App\Troubles;

use App\Models\Client;
use App\Models\Feed;

/** What is wrong with lists: they don't come, one is held, or links that are handed on are not as they should be. */
final class OfFeeds
{
    /** @return list<Found> */
    public static function in(Client $client): array
    {
        $found = [];
        foreach ($client->feeds()->with('applied:id,feed_id')->get() as $feed) {
            /** @var Feed $feed */
            if ($feed->problem !== null) {
                $found[] = self::of($feed, 'does-not-come', "does not come: {$feed->problem}");
            }
            $held = $feed->held();
            if ($held !== null) {
                $found[] = self::of($feed, 'held', "held until somebody takes it: {$held->why}");
            }
            foreach ($feed->out_problems ?? [] as $problem) {
                $found[] = self::of(
                    $feed,
                    "{$problem['code']} {$problem['column']}",
                    "items {$problem['says']}".($problem['column'] === null ? '' : " ({$problem['column']})"),
                    $problem['items'],
                );
            }
        }

        return $found;
    }

    private static function of(Feed $feed, string $cause, string $what, int $items = 0): Found
    {
        return new Found(TroubleKind::Feed, null, $cause, $what, ads: $items, feed: $feed->id);
    }
}
