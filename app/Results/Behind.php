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
        $sessions = Fact::Sessions->from($question->reading);
        $within = Fact::Sessions->within($question->reading);
        $items = $question->only(static fn (By $b): bool => $b->dimension === Dimension::Item);
        [$bought, $which] = Sums::where($items, Fact::Shares->at(...));
        $shares = ($question->reading === null ? 'shares c ' : 'meant_shares c ').Fact::ITEMS;
        $reading = Fact::Shares->within($question->reading);
        $days = [$client->id, $question->from, $question->to];
        [$where, $values] = Sums::where(
            $question->only(static fn (By $b): bool => $b->dimension !== Dimension::Item),
            Fact::Sessions->at(...),
        );
        if (self::isOfItems($items)) {
            $where = 's.id in (select c.session_id from '
                ."{$shares} where c.client_id = ? and c.day between ? and ?{$reading}{$bought}){$where}";
            $values = [...$days, ...$which, ...$values];
        } else {
            $where = "s.client_id = ? and s.day between ? and ?{$where}";
            $values = [...$days, ...$values];
        }
        $of = "from {$shares} where c.session_id = s.id{$reading}{$bought}";
        $sums = Fact::Shares->measures(byItem: true);
        $rows = DB::select(
            "select s.id, s.begin, s.views, s.channel, s.source, s.medium, s.campaign, s.landing, s.device, s.node_id,
                (select sum({$sums['part']}) {$of}) part,
                (select sum({$sums['value']}) {$of}) value,
                (select max(currency) {$of}) currency
            from {$sessions} where {$where}{$within}
            order by s.begin desc, s.id desc limit ".
                ($most + 1),
            [...$which, ...$which, ...$which, ...$values],
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

    /** Is it asked what of something was bought? Sessions themselves are of no item. */
    private static function isOfItems(Question $items): bool
    {
        foreach ($items->where as ['is' => $is, 'not' => $not]) {
            if (in_array('', $is, true) === $not) {
                return true;
            }
        }

        return false;
    }
}
