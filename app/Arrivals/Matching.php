<?php

namespace App\Arrivals;

use App\Collecting\Arrived;
use App\Connectors\Connectors;
use App\Connectors\KnownClick;
use App\Connectors\PlatformTrouble;
use App\Dialects\Dialects;
use App\Models\Account;
use App\Models\Arrival;
use App\Models\Client;
use App\Models\Collector;
use App\Models\Node;
use App\Support\Bulk;
use App\Support\Text;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Url\Query;

/** Finds the ads that arrivals came from: by the click ID, as the platform tells, else by the parameters. */
final readonly class Matching
{
    private const AT_ONCE = 2000;

    /** What arrived so many days ago is looked at again when a plan begins. */
    private const AGAIN = 90;

    /** What was looked for and not found. */
    private const NONE = '';

    private const TEXT = 'varchar(255)';

    public function __construct(
        private Connectors $connectors,
        private Dialects $dialects,
        private Arrived $arrived,
    ) {}

    /** Those that pages have reported and nobody has looked for yet. */
    public function pending(Collector $collector): int
    {
        $arrivals = Arrival::query()
            ->where('collector_id', $collector->id)
            ->whereNull('matched_by')
            ->orderBy('id')
            ->limit(self::AT_ONCE)
            ->toBase()
            ->get([
                'id',
                'collector_id',
                'at',
                'url',
                'visitor',
                'platform',
                'click_id',
                'keyword',
                'placement',
                'device',
                'node_id',
                'matched_by',
            ])
            ->map(static fn (object $a): array => (array) $a)
            ->all();
        $this->match($collector, $arrivals);
        DB::transaction(fn () => $this->keepFound($arrivals));

        return count($arrivals);
    }

    /** @param list<array<string, mixed>> $arrivals */
    private function keepFound(array $arrivals): void
    {
        Bulk::update(
            'arrivals',
            [
                'node_id' => 'bigint unsigned',
                'matched_by' => 'varchar(16)',
                'keyword' => self::TEXT,
                'placement' => self::TEXT,
                'device' => 'varchar(16)',
            ],
            array_map(
                static fn (array $a): array => ['matched_by' => $a['matched_by'] ?? self::NONE] + $a,
                $arrivals,
            ),
        );
        $this->arrived->mark(array_filter($arrivals, static fn (array $a): bool => $a['node_id'] !== null));
    }

    /** A plan has begun: of what has an ad's number in one of its keys the ad may be found now. */
    public function again(Client $client): void
    {
        foreach ($client->plan()?->read()->keysOfAds() ?? [] as $key) {
            Arrival::query()
                ->where('client_id', $client->id)
                ->where('at', '>=', now()->subDays(self::AGAIN))
                ->where('matched_by', self::NONE)
                ->where('url', 'like', '%'.addcslashes($key, '%_\\').'=%')
                ->update(['matched_by' => null]);
        }
    }

    /** @param list<array<string, mixed>> $rows of the table; those whose ad is found get it, and what the click was */
    public function match(Collector $collector, array &$rows): void
    {
        $adKeys = $collector->client->plan()?->read()->keysOfAds() ?? [];
        $parameters = $this->clickParameters($collector->client);
        foreach ($collector->client->accounts()->with('link')->get() as $account) {
            $known = $this->clicks(
                $account,
                array_filter(
                    $rows,
                    static fn (array $r): bool => $r['click_id'] !== ''
                        && $r['node_id'] === null
                        && ($r['platform'] === '' || $parameters[$r['platform']] === $parameters[$account->dialect]),
                ),
            );
            $wanted = array_map(static fn (KnownClick $c): string => $c->ad, array_values($known));
            foreach ($adKeys === [] ? [] : $rows as $row) {
                array_push($wanted, ...self::adIds($row, $adKeys));
            }
            $nodes = $wanted === [] ? [] : self::nodes($account, $wanted);
            foreach (array_keys($nodes === [] ? [] : $rows) as $i) {
                $rows[$i] =
                    $rows[$i]['node_id'] === null
                        ? self::found($rows[$i], $known[$rows[$i]['click_id']] ?? null, $nodes, $adKeys)
                        : $rows[$i];
            }
        }
    }

    /**
     * @param array<string, mixed> $row
     * @param KnownClick|null $click that it came by
     * @param array<string, int> $nodes ads by the platform's ids
     * @param list<string> $adKeys
     * @return array<string, mixed>
     */
    private static function found(array $row, ?KnownClick $click, array $nodes, array $adKeys): array
    {
        $byClick = $click === null ? null : $nodes[$click->ad] ?? null;
        if ($click !== null && $byClick !== null) {
            return array_replace($row, [
                'node_id' => $byClick,
                'matched_by' => 'click-id',
                'keyword' => Text::fit($click->keyword, 255),
                'placement' => Text::fit($click->placement, 255),
                'device' => $row['device'] === '' ? Text::fit($click->device, 16) : $row['device'],
            ]);
        }
        $byPairs = array_intersect_key($nodes, array_flip(self::adIds($row, $adKeys)));

        return $byPairs === []
            ? $row
            : array_replace($row, ['node_id' => reset($byPairs), 'matched_by' => 'parameters']);
    }

    /**
     * @param list<string> $ids
     * @return array<string, int> by the platform's ids
     */
    private static function nodes(Account $account, array $ids): array
    {
        return Node::withTrashed()
            ->where('account_id', $account->id)
            ->where('is_ad', true)
            ->whereIn('external_id', array_values(array_unique($ids)))
            ->pluck('id', 'external_id')
            ->all();
    }

    /** @return array<string, string> platform → the parameter in which it sends click IDs */
    private function clickParameters(Client $client): array
    {
        $parameters = [];
        foreach ($this->dialects->usedBy($client) as $dialect) {
            $parameters[$dialect->id] = $dialect->clickId->parameter ?? '';
        }

        return $parameters;
    }

    /**
     * @param array<int, array<string, mixed>> $rows
     * @return array<string, KnownClick>
     */
    private function clicks(Account $account, array $rows): array
    {
        try {
            return $rows === []
                ? []
                : $this->connectors
                    ->to($account->link)
                    ->clicks(
                        $account->link,
                        $account->external_id,
                        array_values(array_unique(array_column($rows, 'click_id'))),
                    );
        } catch (PlatformTrouble) {
            return []; // the parameters may still tell
        }
    }

    /**
     * @param array<string, mixed> $row
     * @param list<string> $keys
     * @return list<string>
     */
    private static function adIds(array $row, array $keys): array
    {
        $ids = [];
        foreach (
            $keys === [] ? [] : array_slice(Query::read($row['url']), 0, config('limits.arrival_pairs')) as $pair
        ) {
            if (in_array($pair[0], $keys, true) && $pair[1] !== '') {
                $ids[] = Text::fit($pair[1], 64);
            }
        }

        return $ids;
    }
}
