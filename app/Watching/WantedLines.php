<?php

namespace App\Watching;

use App\Accounts\Branches;
use App\Accounts\SampleClick;
use App\Accounts\Show;
use App\Accounts\StoredTexts;
use App\Accounts\Trees;
use App\Agreements\Agreements;
use App\Models\Account;
use App\Results\ResultDays;
use App\Support\Text;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Stop;
use Vestigon\Core\Trace\Trace;
use Vestigon\Core\Url\Address;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\EventKind;
use Vestigon\Core\Watch\Meant;

/**
 * Under which source, medium, campaign and channel the clicks of an ad are wanted to be counted, by the plan: there
 * stands what they cost. What the plan says nothing of is as a click of the ad arrives with it today; where it names no
 * channel, it is the one that the rest of it leads to.
 */
final readonly class WantedLines
{
    private const AT_ONCE = 500;

    private const KEYS = ['source', 'medium', 'campaign', 'content'];

    public function __construct(
        private Agreements $agreements,
        private Told $told,
        private PlanKeys $planKeys,
    ) {}

    /** @param list<int> $ads whose lines are worked out, if they are not known */
    public function know(Account $account, array $ads): void
    {
        $known = DB::table('wanted_lines')->whereIntegerInRaw('node_id', $ads)->pluck('node_id')->all();
        $unknown = array_values(array_diff($ads, $known));
        if ($unknown === []) {
            return;
        }
        $client = $account->client;
        $plan = $client->plan()?->read();
        $channels = $this->agreements->channels($client);
        $origins = $this->told->origins($client, Trees::dialect($account));
        $trackers = $client->trackers()->pluck('id', 'host')->all();
        $others = $this->planKeys->of($client);
        [$settings, $hops] = [StoredTexts::settings($account), Trees::hops($account)];
        foreach (array_chunk($unknown, self::AT_ONCE) as $some) {
            $branch = Branches::of($account, ...$some);
            $rows = [];
            foreach ($some as $ad) {
                $path = $branch->path($ad);
                $trace = Route::of($path, $settings, $hops)->trace(
                    SampleClick::of($path, $branch->keywords($ad)),
                );
                $page = Show::landed($trace);
                $origin = $origins->of(new Event('1', '', 0, EventKind::View, $page));
                $first = Query::first($page);
                $line = $origin->keys;
                $fields = $path->fields(false);
                $means = $plan === null ? null : self::truth($plan, $path, $fields);
                $truth = $means?->values($fields) ?? [];
                if ($means !== null) {
                    $meant = Meant::of($page, $means, $fields)->url;
                    $origin = $origins->of(new Event('1', '', 0, EventKind::View, $meant));
                }
                foreach (self::KEYS as $key) {
                    $name = $channels->keys[$key] ?? "utm_{$key}";
                    $line[$key] = $truth[$name] ?? $line[$key] ?? $first[$name] ?? '';
                }
                // what the plan leaves open is another with every click
                $open = array_flip($plan?->keys() ?? []);
                $rows[] = [
                    'node_id' => $ad,
                    'client_id' => $client->id,
                    'platform' => $path->dialect->id,
                    'tracker_id' => self::passed($trace, $trackers),
                    'reach' => $trace->landed === null ? 'broken' : self::reach($trace, $path, $plan),
                    'channel' => Text::fit($plan->channels[$path->dialect->family] ?? $origin->channel, 120),
                    ...array_map(
                        static fn (string $v): string => Text::fit($v, 255),
                        array_intersect_key($line, array_flip(self::KEYS)),
                    ),
                    'others' => PlanKeys::json($others, $truth + array_diff_key($first, $open)),
                ];
            }
            DB::table('wanted_lines')->upsert($rows, ['node_id']);
        }
    }

    /**
     * @param array<string, int> $trackers by host
     * @return int|null the first that a click passes on its way
     */
    private static function passed(Trace $trace, array $trackers): ?int
    {
        [$url, $stop] = $trace->trail[0] ?? ['', Stop::Broken];

        return $stop === Stop::Hop ? $trackers[Address::host($url)] ?? null : null;
    }

    /** Can what arrives tell that a click was on this ad: by its click ID, or by the ad's number? */
    private static function reach(Trace $trace, Path $path, ?Plan $plan): string
    {
        $arrived = Show::arrived($trace);
        $click = $path->dialect->clickId?->parameter;
        if ($click !== null && ($arrived[$click] ?? '') !== '') {
            return 'ok';
        }
        foreach ($plan?->keysOfAds() ?? [] as $key) {
            if (($arrived[$key] ?? '') === $path->last()->id) {
                return 'ok';
            }
        }

        return 'untracked';
    }

    /** The plan, or what stands in the account, has changed: they are worked out anew. */
    public function anew(Account $account): void
    {
        $ads = DB::table('wanted_lines as w')
            ->join('nodes as n', 'n.id', 'w.node_id')
            ->where('n.account_id', $account->id)
            ->pluck('w.node_id')
            ->all();
        $today = now($account->client->time_zone)->toDateString();
        foreach (array_chunk($ads, self::AT_ONCE) as $some) {
            DB::transaction(function () use ($account, $some, $today): void {
                $were = FormerReaches::now($some);
                DB::table('wanted_lines')->whereIntegerInRaw('node_id', $some)->delete();
                $this->know($account, $some);
                FormerReaches::keep($were, $today);
                ResultDays::allChanged($account->client_id);
            }, 3);
        }
    }

    /**
     * What every click carries, whatever else the click is.
     *
     * @param array<string, string> $fields
     */
    private static function truth(Plan $plan, Path $path, array $fields): Truth
    {
        return Truth::of(
            $plan,
            $path->dialect,
            $plan->lane($path),
            static fn (string $field, Shape $shape): bool => $shape->of($fields[$field] ?? '') ===
                ($fields[$field] ?? ''),
        );
    }
}
