<?php

namespace App\Ledger;

use App\Accounts\Branch;
use App\Accounts\Branches;
use App\Accounts\LiveTexts;
use App\Accounts\SampleClick;
use App\Accounts\Show;
use App\Accounts\StoredTexts;
use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Node;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Trace\Route;

/**
 * A day of an account, ad by ad: what each sent and when that changed on the day, what arrived of it, and what stands
 * otherwise today. A day is the client's, from one midnight to the next, however many hours lie between.
 */
final class PastDay
{
    private const PAGE = 40;

    /** Moments of a day at which texts are looked at; where more changed, the last ones. */
    private const MOMENTS = 12;

    /** Ways in which clicks arrived that are told of each ad. */
    private const WAYS = 5;

    private readonly CarbonImmutable $from;

    private readonly CarbonImmutable $until;

    /** @param CarbonImmutable $day any moment of it, in the client's time zone */
    public function __construct(private readonly Account $account, private readonly CarbonImmutable $day)
    {
        $this->from = $day->startOfDay()->utc();
        $this->until = $day->startOfDay()->addDay()->utc();
    }

    /** @return array<string, mixed> see PastDay in the API's description */
    public function page(bool $onlyArrived, int $offset): array
    {
        $known = $this->account->known_since;
        $ads = $this->ads($onlyArrived);
        $goneAt = (clone $ads)->orderBy('position')->offset($offset)->limit(self::PAGE)->pluck('gone_at', 'id')->all();
        $ids = array_keys($goneAt);
        $isKnown = $known !== null && $known->lessThan($this->until);
        $sent = $ids === [] ? [] : $this->sent($ids, $isKnown);
        $arrived = $this->arrived($ids);
        $clicks = DB::table('figures')
            ->where(['account_id' => $this->account->id, 'day' => $this->day->toDateString()])
            ->whereIntegerInRaw('node_id', $ids)
            ->pluck('clicks', 'node_id');

        return [
            'knownSince' => $known?->toIso8601String(),
            'isKnown' => $isKnown,
            'hours' => (int) round($this->from->diffInHours($this->until)),
            'total' => $ads->count(),
            'items' => array_map(
                static fn (int $id): array => $sent[$id] + [
                    'node' => $id,
                    'goneAt' => $goneAt[$id]?->toIso8601String(),
                    'clicks' => isset($clicks[$id]) ? (int) $clicks[$id] : null,
                    'arrived' => $arrived[$id] ?? [],
                ],
                $ids,
            ),
        ];
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Node> ads that were there */
    private function ads(bool $onlyArrived): \Illuminate\Database\Eloquent\Builder
    {
        return Node::withTrashed()
            ->where(['account_id' => $this->account->id, 'is_ad' => true])
            ->where(
                fn ($q) => $q
                    ->whereNull('gone_at')
                    ->orWhere('gone_at', '>', $this->from->format(LiveTexts::PRECISE)),
            )
            ->when(
                $onlyArrived,
                fn ($q) => $q->whereIn('id', $this->arrivals()->whereNotNull('node_id')->select('node_id')),
            );
    }

    private function arrivals(): \Illuminate\Database\Query\Builder
    {
        return DB::table('arrivals')
            ->where(['client_id' => $this->account->client_id, 'kind' => 'view'])
            ->where('at', '>=', $this->from->format(LiveTexts::PRECISE))
            ->where('at', '<', $this->until->format(LiveTexts::PRECISE));
    }

    /**
     * @param list<int> $ids
     * @return array<int, list<array{values: array<string, string>, views: int}>> by ad, the most frequent ways first
     */
    private function arrived(array $ids): array
    {
        $keys = ['source', 'medium', 'campaign'];
        $ways = [];
        $rows = $this->arrivals()
            ->whereIntegerInRaw('node_id', $ids)
            ->groupBy('node_id', ...$keys)
            ->orderByRaw('count(*) desc')
            ->get(['node_id', ...$keys, DB::raw('count(*) n')]);
        foreach ($rows as $row) {
            $ways[$row->node_id][] = [
                'values' => array_combine($keys, [$row->source, $row->medium, $row->campaign]),
                'views' => (int) $row->n,
            ];
        }

        return array_map(self::shortened(...), $ways);
    }

    /**
     * @param list<array{values: array<string, string>, views: int}> $ways
     * @return list<array{values: array<string, string>|null, views: int}> null: all others
     */
    private static function shortened(array $ways): array
    {
        $others = array_sum(array_column(array_splice($ways, self::WAYS), 'views'));

        return $others === 0 ? $ways : [...$ways, ['values' => null, 'views' => $others]];
    }

    /**
     * @param non-empty-list<int> $ids
     * @return array<int, array<string, mixed>> by ad
     */
    private function sent(array $ids, bool $isKnown): array
    {
        $now = Branches::of($this->account, ...$ids);
        $told = [];
        foreach ($ids as $id) {
            $told[$id] = self::named($now, $id) + ['sent' => [], 'since' => []];
        }
        $hops = Trees::hops($this->account);
        foreach ($isKnown ? $this->moments($ids, $now) : [] as $at) {
            $then = Branches::at($this->account, $at, ...$ids);
            $settings = StoredTexts::settings($this->account, $at);
            foreach ($ids as $id) {
                $path = $then->path($id);
                $trace = Route::once($path, SampleClick::of($path, $then->keywords($id)), $settings, $hops);
                $ribbon = Show::ribbon($trace);
                $sent = $told[$id]['sent'];
                if ($sent === [] || end($sent)['ribbon'] !== $ribbon) {
                    $sent[] = ['since' => $at->toIso8601String(), 'ribbon' => $ribbon];
                }
                $since = Otherwise::of($then, $now, $id);
                $told[$id] = self::named($then, $id) + ['sent' => $sent, 'since' => $since];
            }
        }

        return $told;
    }

    /** @return array{name: string, path: list<string>} */
    private static function named(Branch $branch, int $ad): array
    {
        $nodes = $branch->path($ad)->nodes;

        return ['name' => end($nodes)->name, 'path' => array_column(array_slice($nodes, 1, -1), 'name')];
    }

    /**
     * @param non-empty-list<int> $ids
     * @return non-empty-list<CarbonImmutable> the beginning of the day, and whenever a text of these ads changed on it
     */
    private function moments(array $ids, Branch $branch): array
    {
        $nodes = array_merge(...array_map($branch->ids(...), $ids));
        $changed = [];
        foreach (['since', 'until'] as $bound) {
            $changed = [
                ...$changed,
                ...DB::table('texts')
                    ->whereIntegerInRaw('node_id', $nodes)
                    ->where($bound, '>', $this->from->format(LiveTexts::PRECISE))
                    ->where($bound, '<', $this->until->format(LiveTexts::PRECISE))
                    ->distinct()
                    ->pluck($bound)
                    ->all(),
            ];
        }
        $moments = array_map(
            static fn (string $at): CarbonImmutable => CarbonImmutable::parse($at, 'UTC'),
            array_values(array_unique($changed)),
        );
        sort($moments);
        $begin = $this->from->max($this->account->known_since); // while it is first brought in, nothing is sent
        $later = array_filter($moments, static fn (CarbonImmutable $at): bool => $at->greaterThan($begin));

        return [$begin, ...array_slice(array_values($later), -self::MOMENTS)];
    }
}
