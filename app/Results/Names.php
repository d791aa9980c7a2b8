<?php

namespace App\Results;

use App\Dialects\Dialects;
use App\Models\Account;
use App\Models\Client;
use App\Models\Collector;
use App\Models\Link;
use App\Models\Node;
use Illuminate\Support\Facades\DB;

/** What the values of dimensions are called. */
final readonly class Names
{
    public function __construct(private Dialects $dialects) {}

    /**
     * @param list<string> $values
     * @return array<string, string> those that are called otherwise than they read
     */
    public function of(Client $client, Dimension $dimension, array $values): array
    {
        $ids = array_map(intval(...), array_filter($values, ctype_digit(...)));

        return match ($dimension) {
            Dimension::Account => Account::query()
                ->where('client_id', $client->id)
                ->whereIntegerInRaw('id', $ids)
                ->pluck('name', 'id')
                ->all(),
            Dimension::Link => Link::withTrashed()
                ->where('client_id', $client->id)
                ->whereIntegerInRaw('id', $ids)
                ->get(['id', 'title', 'url'])
                ->mapWithKeys(static fn (Link $l): array => [$l->id => $l->title === '' ? $l->url : $l->title])
                ->all(),
            Dimension::Site => Collector::query()
                ->where('client_id', $client->id)
                ->whereIntegerInRaw('id', $ids)
                ->pluck('site', 'id')
                ->all(),
            Dimension::AdCampaign, Dimension::AdGroup, Dimension::Ad => Node::withTrashed()
                ->whereIntegerInRaw('id', $ids)
                ->pluck('name', 'id')
                ->all(),
            Dimension::Platform => array_filter(
                array_map(
                    fn (string $id): string => $id === ''
                        ? ''
                        : $this->dialects->find($client->id, $id)->title ?? '',
                    array_combine($values, $values),
                ),
                strlen(...),
            ),
            Dimension::Item => DB::table('item_names')
                ->where('client_id', $client->id)
                ->whereIn('item', $values)
                ->pluck('name', 'item')
                ->all(),
            default => [],
        };
    }
}
