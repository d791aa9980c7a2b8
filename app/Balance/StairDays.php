<?php

namespace App\Balance;

use App\Models\Client;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/**
 * What became of clicks, added up by day and campaign. A day whose records have changed since is added up anew before
 * it is read; so it is always what the records say, and may be thrown away.
 */
final readonly class StairDays
{
    private const COLUMNS = [
        'day' => 'day',
        'platform' => 'platform',
        'account' => 'account_id',
        'campaign' => 'campaign_id',
    ];

    /** Days that are added up in one step, where nobody waits. */
    private const AT_ONCE = 5;

    /** A person who asks waits so long for days to be added up, and for what is begun by then. */
    private const SECONDS = 0.6;

    /** With more ads nobody waits for a whole day of them. */
    private const MANY = 10_000;

    public function __construct(private StairRecords $records) {}

    /** @return iterable<array<string, mixed>> as StairRecords has it, but for single ads */
    public function rows(Asked $asked): iterable
    {
        return $this->lines($asked)
            ->selectRaw('step, channel, currency, sum(n) n, sum(cost) cost')
            ->groupBy('step', 'channel', 'currency')
            ->get()
            ->map(static fn (object $r): array => (array) $r);
    }

    /** @return iterable<object> what it is told by, `currency`, and the `conversions` and `value` that are claimed */
    public function claimed(Asked $asked): iterable
    {
        return $this->lines($asked)
            ->where('step', 'clicks')
            ->selectRaw('currency, sum(conversions) conversions, sum(value) value')
            ->groupBy('currency')
            ->get();
    }

    private function lines(Asked $asked): Builder
    {
        $this->refresh($asked->client, $asked->from, $asked->to, self::SECONDS);
        $query = StairLines::for($asked);
        foreach ($asked->by as $name) {
            $query->addSelect(self::COLUMNS[$name]." as {$name}")->groupBy(self::COLUMNS[$name]);
        }
        if ($asked->within !== null) {
            $query->where(self::COLUMNS[$asked->within[0]], $asked->within[1]);
        }

        return $query;
    }

    /**
     * Adds up the days of a period whose records have changed; those that somebody else is adding up are left to them.
     *
     * @param float $seconds one is begun, and no other after so long; what is left then, left() tells
     */
    public function refresh(Client $client, string $from, string $to, float $seconds = INF): void
    {
        $until = microtime(true) + $seconds;
        // the first time through may put later days in doubt
        for ($time = 0; $time < 2; $time++) {
            $stale = self::stale($client, $from, $to);
            if ($seconds !== INF && $stale !== [] && self::hasMany($client)) {
                $this->addUpInParts($client, $stale, $until);

                return;
            }
            foreach (array_chunk($stale, $seconds === INF ? self::AT_ONCE : 1) as $days) {
                DB::transaction(fn () => $this->addUp($client, $days), 3);
                if (microtime(true) > $until) {
                    return;
                }
            }
        }
    }

    /** How many days of a period are not what the records say. */
    public function left(Client $client, string $from, string $to): int
    {
        return count(self::stale($client, $from, $to));
    }

    /** @return list<string> */
    private static function stale(Client $client, string $from, string $to): array
    {
        return DB::table('result_days as d')
            ->leftJoin(
                'stair_days as s',
                static fn ($join) => $join->on('s.client_id', 'd.client_id')->on('s.day', 'd.day'),
            )
            ->where('d.client_id', $client->id)
            ->whereBetween('d.day', [$from, $to])
            ->whereRaw('(coalesce(s.version, 0) <> d.version or s.doubted)')
            ->orderBy('d.day')
            ->pluck('d.day')
            ->all();
    }

    /** @param list<string> $days */
    private function addUp(Client $client, array $days): void
    {
        $of = self::entered($client, $days);
        // one at a time adds up a day
        $were = $of->clone()->orderBy('day')->lock('for update skip locked')->pluck('version', 'day');
        $days = array_map(strval(...), $were->keys()->all());
        if ($days === []) {
            return;
        }
        $are = DB::table('result_days')
            ->where('client_id', $client->id)
            ->whereIn('day', $days)
            ->pluck('version', 'day');
        self::doubt($client, $are->diffAssoc($were)->keys()->all());
        StairLines::drop($client, $days);
        foreach ($days as $day) {
            $this->write($client, $day, null);
            $of->clone()->where('day', $day)->update(self::done($are[$day] ?? 0));
        }
    }

    private static function hasMany(Client $client): bool
    {
        return DB::table('wanted_lines')->where('client_id', $client->id)->skip(self::MANY)->value('node_id') !== null;
    }

    /** @param list<string> $days */
    private function addUpInParts(Client $client, array $days, float $until): void
    {
        foreach ($days as $day) {
            do {
                $isMore = DB::transaction(fn (): bool => $this->addUpAccount($client, $day), 3);
                if (microtime(true) > $until) {
                    return;
                }
            } while ($isMore);
        }
    }

    /** @return bool false: that was the last of the day, or somebody else is at it */
    private function addUpAccount(Client $client, string $day): bool
    {
        $of = self::entered($client, [$day]);
        $was = $of->clone()->lock('for update skip locked')->first();
        if ($was === null) {
            return false;
        }
        $version = DB::table('result_days')->where(['client_id' => $client->id, 'day' => $day])->value('version') ?? 0;
        $isBegun = $was->coming === $version;
        if (! $isBegun && $was->version !== $version) {
            self::doubt($client, [$day]);
        }
        $account = $client->accounts()->where('id', '>', $isBegun ? $was->through : 0)->min('id');
        if ($account === null) {
            $are = $client->accounts()->select('id');
            StairLines::drop($client, [$day], static fn (Builder $lines) => $lines->whereNotIn('account_id', $are));
            $of->update(self::done($version));

            return false;
        }
        StairLines::drop($client, [$day], static fn (Builder $lines) => $lines->where('account_id', $account));
        $this->write($client, $day, (int) $account);
        $of->update(['coming' => $version, 'through' => $account]);

        return true;
    }

    /** @return array<string, mixed> */
    private static function done(int $version): array
    {
        return ['version' => $version, 'doubted' => false, 'coming' => null, 'through' => 0];
    }

    /** @param list<string> $days */
    private static function entered(Client $client, array $days): Builder
    {
        $of = DB::table('stair_days')->where('client_id', $client->id)->whereIn('day', $days);
        DB::table('stair_days')->insertOrIgnore(
            array_map(
                static fn (string $day): array => ['client_id' => $client->id, 'day' => $day, 'version' => 0],
                array_values(array_diff($days, $of->clone()->pluck('day')->all())),
            ),
        );

        return $of;
    }

    /** @param int|null $account this one alone */
    private function write(Client $client, string $day, ?int $account): void
    {
        $asked = new Asked(
            $client,
            $day,
            $day,
            ['platform', 'account', 'campaign'],
            $account === null ? null : ['account', $account],
        );
        StairLines::write($client, $day, $this->records->rows($asked));
    }

    /**
     * Days after these on which a click of theirs came again: whether it is a repeat there may have changed.
     *
     * @param list<string> $days
     */
    private static function doubt(Client $client, array $days): void
    {
        $marks = implode(', ', array_fill(0, count($days), '?'));
        $days === [] || DB::update(
            "update stair_days t join (
                select distinct e.day from site_sessions s
                join site_sessions e force index (site_sessions_client_id_click_id_index)
                    on e.client_id = s.client_id and e.click_id = s.click_id and e.day > s.day
                where s.client_id = ? and s.day in ({$marks}) and s.click_id <> ''
            ) again on again.day = t.day set t.doubted = 1, t.coming = null where t.client_id = ?",
            [$client->id, ...$days, $client->id],
        );
    }
}
