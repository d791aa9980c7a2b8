<?php

namespace App\Results;

use App\Models\Client;
use Illuminate\Support\Facades\DB;

/**
 * Results added up by day, once for each set of dimensions that is asked for. A day that has changed since is added up
 * anew; so they are always what the records say, and may be thrown away.
 */
final readonly class Rollups
{
    /** Sets of more than so many dimensions are not kept: they would be as long as what they add up. */
    public const MOST = 4;

    /** A set that nobody has asked for in so many days is let go. */
    private const ASKED = 60;

    /** From so many sessions on, any two dimensions are added up before somebody asks. */
    public const LARGE = 1_000_000;

    /** So many days back, as results open. */
    public const BACK = 90;

    /** Sets that one reading of the records adds up. */
    private const AT_ONCE = 24;

    /** With very many values: beside others they are added up only if somebody asks. */
    private const MANY_VALUED = [Dimension::Keyword, Dimension::Placement, Dimension::Landing, Dimension::Term];

    public function __construct(private AddingUp $addingUp) {}

    /**
     * @param list<By> $columns none of time
     * @return int the set, which is as the records are from the first day to the last
     */
    public function upToDate(Client $client, array $columns, string $from, string $to): int
    {
        $set = self::set($client, $columns, $from);
        $this->addingUp->of($client, [$set => $columns], $from, $to);

        return $set;
    }

    /** All that is asked for, as it is now; of a client that has much, also what may be asked for. */
    public function ahead(Client $client): void
    {
        $sets = DB::table('rollup_sets')->where('client_id', $client->id);
        $unasked = now()->subDays(self::ASKED)->toDateString();
        foreach ((clone $sets)->where('asked_on', '<', $unasked)->pluck('id') as $set) {
            DB::transaction(static function () use ($set, $unasked): void {
                if (DB::table('rollup_sets')->where('id', $set)->where('asked_on', '<', $unasked)->delete() > 0) {
                    self::drop($set);
                }
            });
        }
        if (
            DB::table('site_sessions')->where('client_id', $client->id)->skip(self::LARGE)->value('id') !== null
        ) {
            foreach (self::pairs() as $pair) {
                self::set($client, $pair, now()->subDays(self::BACK)->toDateString());
            }
        }
        // those of the same days together: one reading of the records adds up several
        foreach ($sets->orderBy('first_day')->orderBy('id')->get()->chunk(self::AT_ONCE) as $some) {
            $this->addingUp->of(
                $client,
                $some->mapWithKeys(static fn (object $s): array => [$s->id => self::columns($s)])->all(),
                $some->min('first_day'),
                now()->addDay()->toDateString(),
            );
            foreach ($some as $set) {
                Weeks::refresh((int) $set->id, $set->first_day, now()->addDay()->toDateString());
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
                self::drop($set);
            });
        }
    }

    private static function drop(int $set): void
    {
        foreach (['rollups', 'rollup_weeks'] as $table) {
            DB::table($table)->where('set_id', $set)->delete();
        }
    }

    /** @return iterable<list<By>> none, each, and any two that have not very many values; none of time, nor by keys */
    public static function pairs(): iterable
    {
        $all = array_values(
            array_filter(
                Dimension::cases(),
                static fn (Dimension $d): bool => ! $d->isTime() && $d !== Dimension::Key,
            ),
        );
        usort($all, static fn (Dimension $a, Dimension $b): int => strcmp($a->value, $b->value));
        yield [];
        foreach ($all as $i => $one) {
            yield [By::of($one)];
            foreach (array_slice($all, $i + 1) as $other) {
                if (! in_array($one, self::MANY_VALUED, true) && ! in_array($other, self::MANY_VALUED, true)) {
                    yield [By::of($one), By::of($other)];
                }
            }
        }
    }

    /** @return list<By> */
    private static function columns(object $set): array
    {
        return array_map(
            By::ofColumn(...),
            array_values(array_filter(explode(',', $set->dimensions), strlen(...))),
        );
    }

    /** @param list<By> $columns in the order of Question::columns */
    private static function set(Client $client, array $columns, string $from): int
    {
        $names = array_map(static fn (By $b): string => $b->column(), $columns);
        $is = ['client_id' => $client->id, 'dimensions' => implode(',', $names)];
        $today = now()->toDateString();
        $set = DB::table('rollup_sets')->where($is)->first();
        if ($set === null || $set->asked_on < $today || $set->first_day > $from) {
            DB::table('rollup_sets')->upsert(
                [$is + ['first_day' => $from, 'asked_on' => $today]],
                ['client_id', 'dimensions'],
                ['first_day' => DB::raw('least(first_day, values(first_day))'), 'asked_on' => $today],
            );
        }

        return (int) ($set->id ?? DB::table('rollup_sets')->where($is)->value('id'));
    }
}
