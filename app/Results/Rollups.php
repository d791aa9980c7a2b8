<?php

namespace App\Results;

use App\Models\Client;
use App\Watching\PlanKeys;
use Illuminate\Support\Facades\DB;

/**
 * Results added up by day, once for each set of dimensions that is asked for. A day that has changed since is added up
 * anew; so they are always what the records say, and may be thrown away.
 */
final readonly class Rollups
{
    /** A set that nobody has asked for in so many days is let go. */
    private const ASKED = 60;

    /** So many days back, as results open. */
    public const BACK = 90;

    /** Sets that one reading of the records adds up. */
    private const AT_ONCE = 24;

    /** @param int $large from so many sessions on, any two dimensions are added up before somebody asks */
    public function __construct(
        private AddingUp $addingUp,
        private PlanKeys $keys,
        private int $large = 1_000_000,
    ) {}

    /** @return int the set's number; it is as the records are from the first day to the last */
    public function upToDate(Client $client, RollupSet $set, string $from, string $to): int
    {
        $number = self::set($client, $set, $from);
        $this->addingUp->of($client, [$number => $set], $from, $to);

        return $number;
    }

    /** All that is asked for, as it is now; of a client that has much, also what may be asked for. */
    public function ahead(Client $client): void
    {
        $sets = DB::table('rollup_sets')->where('client_id', $client->id);
        $unasked = now()->subDays(self::ASKED)->toDateString();
        foreach ((clone $sets)->where('asked_on', '<', $unasked)->pluck('id') as $set) {
            DB::transaction(static function () use ($set, $unasked): void {
                if (DB::table('rollup_sets')->where('id', $set)->where('asked_on', '<', $unasked)->delete() > 0) {
                    DB::table('rollups')->where('set_id', $set)->delete();
                }
            });
        }
        $variety = null;
        if (
            DB::table('site_sessions')->where('client_id', $client->id)->skip($this->large)->value('id') !== null
        ) {
            $keys = array_map(By::key(...), array_values($this->keys->of($client)));
            $variety = Variety::of($client, $keys);
            foreach (array_filter(self::answeringPairs($keys), $variety->comesToFewLines(...)) as $set) {
                self::set($client, $set, now()->subDays(self::BACK)->toDateString());
            }
        }
        // one reading of the records adds up several: those of the same days, and of about as many values
        $all = $sets
            ->get()
            ->each(static fn (object $s) => $s->set = RollupSet::named($s->dimensions))
            ->sortBy(static fn (object $s): array => [$s->first_day, $variety?->most($s->set), $s->id]);
        foreach ($all->chunk(self::AT_ONCE) as $some) {
            $this->addingUp->of(
                $client,
                $some->pluck('set', 'id')->all(),
                $some->min('first_day'),
                now()->addDay()->toDateString(),
            );
            foreach ($some as $set) {
                Spans::refresh((int) $set->id, $set->first_day, now()->addDay()->toDateString());
            }
        }
    }

    /** Throws away what was added up; it is added up anew when it is asked for. */
    public static function forget(Client $client): void
    {
        foreach (DB::table('rollup_sets')->where('client_id', $client->id)->pluck('id') as $set) {
            DB::transaction(static function () use ($set): void {
                DB::table('rollup_sets')->where('id', $set)->lockForUpdate()->value('id');
                DB::table('rollup_days')->where('set_id', $set)->delete();
                DB::table('rolled_weeks')->where('set_id', $set)->delete();
                DB::table('rollups')->where('set_id', $set)->delete();
            });
        }
    }

    /**
     * @param list<By> $keys of plans
     * @return list<RollupSet> that answer any question of two dimensions, and of a key beside what ads are told by
     */
    private static function answeringPairs(array $keys): array
    {
        $beside = array_filter(
            Dimension::cases(),
            static fn (Dimension $d): bool => ! $d->isTime() && ! $d->isOfAds() && $d !== Dimension::Key,
        );
        $beside = array_map(By::of(...), array_values($beside));
        $asked = [];
        foreach ($beside as $i => $one) {
            foreach (array_slice($beside, $i + 1) as $other) {
                $asked[] = RollupSet::of([$one, $other]);
            }
        }
        foreach (DownTo::cases() as $downTo) {
            $asked[] = new RollupSet($downTo, []);
            foreach ([...$beside, ...$keys] as $one) {
                $asked[] = new RollupSet($downTo, [$one]);
            }
        }

        return $asked;
    }

    private static function set(Client $client, RollupSet $set, string $from): int
    {
        $is = ['client_id' => $client->id, 'dimensions' => $set->name()];
        $today = now()->toDateString();
        $known = DB::table('rollup_sets')->where($is)->first();
        if ($known === null || $known->asked_on < $today || $known->first_day > $from) {
            DB::table('rollup_sets')->upsert(
                [$is + ['first_day' => $from, 'asked_on' => $today]],
                ['client_id', 'dimensions'],
                ['first_day' => DB::raw('least(first_day, values(first_day))'), 'asked_on' => $today],
            );
        }

        return (int) ($known->id ?? DB::table('rollup_sets')->where($is)->value('id'));
    }
}
