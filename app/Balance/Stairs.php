<?php

namespace App\Balance;

use App\Models\Client;
use Illuminate\Support\Arr;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\Balance;

/**
 * Where the clicks of platforms, accounts, campaigns or ads have gone: from what the platform has counted down to what
 * arrived in the channel that the plan wants. (watch.md §6)
 */
final readonly class Stairs
{
    /** By what lines are told. */
    public const BY = ['platform', 'account', 'campaign', 'ad'];

    private const NOTHING = [
        'clicks' => 0,
        'cost' => 0,
        'broken' => 0,
        'untracked' => 0,
        'arrived' => 0,
        'elsewhere' => [],
        'empty' => 0,
        'raw' => 0,
        'repeats' => 0,
    ];

    public function __construct(private StairRecords $records, private StairDays $days) {}

    /** @return array<string, array{Balance, int}> with what the clicks have cost, in the client's currency */
    public function of(Asked $asked): array
    {
        [$client, $by] = [$asked->client, $asked->by()];
        $rows = $asked->sessions->reading !== null || $asked->isOfAds()
            ? $this->records->rows($asked)
            : $this->days->rows($asked);
        $lines = [];
        foreach ($rows as $row) {
            $key = $by === null ? '' : (string) $row[$by];
            $line = $lines[$key] ?? self::NOTHING;
            if ($row['step'] === 'elsewhere') {
                $line['elsewhere'][$row['channel']] = ($line['elsewhere'][$row['channel']] ?? 0) + (int) $row['n'];
            } else {
                $line[$row['step']] += (int) $row['n'];
                $line['cost'] += ($row['currency'] ?? '') === $client->currency ? (int) $row['cost'] : 0;
            }
            $lines[$key] = $line;
        }
        $lost = AtTrackers::lost($asked);
        // of whom nothing is known, it is not known either which account's ads they clicked
        $withheld = $by === null && $asked->within === null ? $this->withheld($asked) : null;

        return Arr::map(
            $lines,
            static fn (array $l, int|string $key): array => [
                Balance::of(
                    $l['clicks'],
                    $l['arrived'],
                    $l['elsewhere'],
                    $l['empty'],
                    $l['raw'],
                    $l['repeats'],
                    $l['broken'],
                    $l['untracked'],
                    $lost[$key] ?? null,
                    $withheld,
                ),
                $l['cost'],
            ],
        );
    }

    /** How many days of a period are being added up: their clicks are not told yet, or as they were. */
    public function left(Client $client, string $from, string $to): int
    {
        return $this->days->left($client, $from, $to);
    }

    private function withheld(Asked $asked): ?int
    {
        $n = DB::table('withheld')
            ->whereIn('collector_id', $asked->client->collectors()->select('id'))
            ->whereBetween('day', [$asked->from, $asked->to])
            ->selectRaw('sum(n) n')
            ->value('n');

        return $n === null ? null : (int) $n;
    }
}
