<?php

namespace App\Results;

use App\Models\Client;
use App\Models\Node;
use Illuminate\Support\Facades\DB;

/** What stands behind a line of results: its sessions, with what they brought. */
final readonly class Behind
{
    public function __construct(private NameParts $nameParts) {}

    /** @return array{items: list<array<string, mixed>>, more: bool} the latest first */
    public function sessions(Client $client, Question $question, int $most): array
    {
        $question = $this->nameParts->resolved($client, $question);
        [$where, $values] = Sums::where($question, Fact::Sessions->at(...));
        $from = Fact::Sessions->from($question->reading);
        $where .= Fact::Sessions->within($question->reading);
        $shares = $question->reading === null
            ? 'shares c where c.session_id = s.id'
            : 'meant_shares c where c.reading_id = s.reading_id and c.session_id = s.id';
        $rows = DB::select(
            "select s.id, s.begin, s.views, s.channel, s.source, s.medium, s.campaign, s.landing, s.device, s.node_id,
                (select sum(part) from {$shares}) part,
                (select sum(value) from {$shares}) value,
                (select max(currency) from {$shares}) currency
            from {$from} where s.client_id = ? and s.day between ? and ?{$where}
            order by s.begin desc, s.id desc limit ".
                ($most + 1),
            [$client->id, $question->from, $question->to, ...$values],
        );
        $names = Node::withTrashed()
            ->whereIntegerInRaw('id', array_filter(array_column($rows, 'node_id')))
            ->pluck('name', 'id');

        return [
            'items' => array_map(
                static fn (object $r): array => [
                    'arrival' => (int) $r->id,
                    'at' => str_replace(' ', 'T', $r->begin).'Z',
                    'views' => (int) $r->views,
                    'channel' => $r->channel,
                    'source' => $r->source,
                    'medium' => $r->medium,
                    'campaign' => $r->campaign,
                    'landing' => $r->landing,
                    'device' => $r->device,
                    'ad' => $r->node_id === null
                            ? null
                            : ['id' => (int) $r->node_id, 'name' => $names[$r->node_id] ?? ''],
                    'conversions' => (int) $r->part / 1_000_000,
                    'revenue' => $r->currency === null ? null : (int) $r->value,
                    'currency' => $r->currency,
                ],
                array_slice($rows, 0, $most),
            ),
            'more' => count($rows) > $most,
        ];
    }
}
