<?php

namespace App\Troubles;

use App\Accounts\FormerNames;
use App\Agreements\Agreements;
use App\Dialects\Dialects;
use App\Models\Client;
use App\Results\By;
use App\Results\Dimension;
use App\Results\Question;
use App\Results\Sums;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Watch\Line;
use Vestigon\Core\Watch\Wrong\Agreed;
use Vestigon\Core\Watch\Wrong\Arrived;
use Vestigon\Core\Watch\Wrong\Fault;
use Vestigon\Core\Watch\Wrong\WhatIsWrong;

/** What arrives otherwise than was agreed on, account by account, and of what no ad is known to have sent. */
final readonly class ArrivesWrong
{
    /** What is counted by, and looked at. */
    private const KEYS = [
        'source' => Dimension::Source,
        'medium' => Dimension::Medium,
        'campaign' => Dimension::Campaign,
        'content' => Dimension::Content,
        'term' => Dimension::Term,
    ];

    /** What arrives more rarely is chance: a link that somebody has typed. */
    private const SESSIONS = 3;

    /** Of these, values are instances of one cause: a token for the number, a field that people type into. */
    private const WHATEVER_THE_VALUE = ['number-for-name', 'personal-data'];

    /** A source is new for so many days, if others had arrived before. */
    private const NEW = 2;

    /** A new source is worth a word from so many sessions on. */
    private const NEW_SESSIONS = 10;

    public function __construct(
        private Sums $sums,
        private Agreements $agreements,
        private Dialects $dialects,
    ) {}

    /** @return list<Found> */
    public function in(Client $client): array
    {
        $agreed = new Agreed(
            $this->agreements->channels($client),
            [...array_values(Shipped::all()), ...$this->dialects->usedBy($client)],
            $this->agreements->words($client),
            $client->plan()?->agreed(),
            Agreements::today($client),
        );
        $found = Stopped::in($client);
        foreach ($this->arrived($client, $agreed->channels->otherwise) as $account => $arrived) {
            foreach (self::together(WhatIsWrong::in($arrived, $agreed)) as $faults) {
                $one = self::found($client, $account ?: null, $faults, self::key($faults[0], $agreed));
                if ($one->clicks >= self::SESSIONS) {
                    $found[] = $one;
                }
            }
        }

        return $found;
    }

    /**
     * @param list<Fault> $faults
     * @return list<non-empty-list<Fault>> those with one cause together, the one of most sessions first
     */
    private static function together(array $faults): array
    {
        $groups = [];
        foreach ($faults as $fault) {
            $isOne = in_array($fault->code, self::WHATEVER_THE_VALUE, true);
            $groups["{$fault->code} {$fault->name} ".($isOne ? '' : $fault->value)][] = $fault;
        }
        foreach ($groups as &$group) {
            usort($group, static fn (Fault $a, Fault $b): int => $b->sessions <=> $a->sessions);
        }

        return array_values($groups);
    }

    /** @param non-empty-list<Fault> $faults with one cause */
    private static function found(Client $client, ?int $account, array $faults, string $key): Found
    {
        $first = $faults[0];
        $values = array_column($faults, 'value');
        $isEmpty = $first->code === 'empty-value';
        $ads = $account === null ? null : self::ads($client, $account, $first->name, $values, $isEmpty);
        $more = count($faults) - 1;
        $instance = in_array($first->code, self::WHATEVER_THE_VALUE, true) ? '' : $first->value;

        return new Found(
            TroubleKind::Arrives,
            $account,
            "{$first->code}\0{$first->name}\0{$instance}",
            $first->reason.($more === 0 ? '' : " So do {$more} more values."),
            $ads->node ?? null,
            (int) ($ads->ads ?? 0),
            (int) ($isEmpty ? $ads->sessions ?? 0 : array_sum(array_column($faults, 'sessions'))),
            (int) round($ads->cost ?? 0),
            about: [
                'code' => $first->code,
                'name' => $first->name,
                'key' => $key,
                'values' => $values,
            ],
        );
    }

    /** The key that a fault is about; empty: it is about none. */
    private static function key(Fault $fault, Agreed $agreed): string
    {
        return match ($fault->name) {
            'channel', 'lost' => '',
            'doubled' => $agreed->key(explode(',', $fault->value)[0]),
            default => $agreed->key($fault->name),
        };
    }

    /**
     * The ads that something has arrived from: how many, the one of most sessions, and what the clicks have cost: of
     * each ad's clicks as large a share as of its sessions.
     *
     * @param list<string> $values
     * @param bool $areProven only ads of which the proof says that all is well: of the others it says what is missing
     */
    private static function ads(Client $client, int $account, string $name, array $values, bool $areProven): object
    {
        $since = Looking::since($client);
        $isWrong = ArrivedWith::oneOf($name, $values);

        return DB::selectOne(
            "select count(*) ads, sum(x.n) sessions, sum(coalesce(f.cost, 0) * x.n / x.total) cost,
                cast(group_concat(x.node_id order by x.n desc, x.node_id limit 1) as unsigned) node
            from (
                select s.node_id, sum({$isWrong}) n, count(*) total from site_sessions s
                where s.client_id = ? and s.account_id = ? and s.day >= ? and s.views > 0 and s.node_id is not null
                group by s.node_id having n > 0
            ) x join nodes p on p.id = x.node_id and (not ? or p.state = 'proven') left join (
                select node_id, sum(if(currency = ?, cost, 0)) cost from figures where client_id = ? and day >= ?
                group by node_id
            ) f on f.node_id = x.node_id",
            [...$values, $client->id, $account, $since, (int) $areProven, $client->currency, $client->id, $since],
        );
    }

    /** @return array<int, Arrived> by account; 0: no ad is known */
    private function arrived(Client $client, string $otherwise): array
    {
        [$from, $to] = [Looking::since($client), now($client->time_zone)->toDateString()];
        $values = $unmapped = [];
        foreach (self::KEYS as $name => $dimension) {
            foreach ($this->lines($client, [Dimension::Account, $dimension], $from, $to) as $line) {
                $account = (int) $line->by[Dimension::Account->value];
                $values[$account][$name][$line->by[$dimension->value]] = $line->sessions;
            }
        }
        $by = [Dimension::Channel, Dimension::Account, Dimension::Source, Dimension::Medium];
        foreach ($this->lines($client, $by, $from, $to) as $line) {
            ['source' => $source, 'medium' => $medium, 'channel' => $channel] = $line->by;
            if ($channel === $otherwise && $source.$medium !== '') {
                $unmapped[(int) $line->by['account']]["{$source} / {$medium}"] = $line->sessions;
            }
        }
        $new = $this->newSources($client, $from, $to);
        $doubled = self::odd($client, 'doubled', $from, $to);
        $lost = self::odd($client, 'lost', $from, $to);
        $arrived = [];
        foreach ($values + $doubled + $lost as $account => $none) {
            $of = $values[$account] ?? [];
            $arrived[$account] = new Arrived(
                $account !== 0,
                $of,
                $unmapped[$account] ?? [],
                array_intersect_key($new, $of['source'] ?? []),
                self::numbers($account, array_keys($of['campaign'] ?? [])),
                FormerNames::before($account, CarbonImmutable::parse($from, $client->time_zone)->utc()),
                $doubled[$account] ?? [],
                $lost[$account] ?? [],
            );
        }

        return $arrived;
    }

    /** @return array<int, array<string, int>> by account, 0: no ad is known; what is odd → sessions */
    private static function odd(Client $client, string $name, string $from, string $to): array
    {
        $what = ArrivedWith::column($name);
        $odd = [];
        foreach (
            DB::table('site_sessions as s')
                ->where('s.client_id', $client->id)
                ->whereBetween('s.day', [$from, $to])
                ->where('s.views', '>', 0)
                ->whereRaw("{$what} <> ''")
                ->groupByRaw("s.account_id, {$what}")
                ->selectRaw("coalesce(s.account_id, 0) account, {$what} what, count(*) n")
                ->get() as $row
        ) {
            $odd[(int) $row->account][$row->what] = (int) $row->n;
        }

        return $odd;
    }

    /**
     * @param list<Dimension> $by
     * @return list<Line> with sessions
     */
    private function lines(Client $client, array $by, string $from, string $to): array
    {
        return array_values(
            array_filter(
                $this->sums->of($client, new Question(array_map(By::of(...), $by), $from, $to)),
                static fn (Line $line): bool => $line->sessions > 0,
            ),
        );
    }

    /** @return array<string, int> sources that arrive since yesterday for the first time → sessions */
    private function newSources(Client $client, string $from, string $to): array
    {
        $days = $sessions = [];
        foreach ($this->lines($client, [Dimension::Source, Dimension::Day], $from, $to) as $line) {
            $source = $line->by['source'];
            $days[$source] = min($days[$source] ?? $to, $line->by['day']);
            $sessions[$source] = ($sessions[$source] ?? 0) + $line->sessions;
        }
        unset($sessions['']);
        $since = Looking::since($client, self::NEW - 1);
        $isOld = $days !== [] && min($days) < $since;

        return array_filter(
            $isOld ? $sessions : [],
            static fn (int $n, string|int $source): bool => $n >= self::NEW_SESSIONS && $days[$source] >= $since,
            ARRAY_FILTER_USE_BOTH,
        );
    }

    /**
     * @param list<string|int> $values
     * @return array<string, string> those that are the number of an element of the account → its name
     */
    private static function numbers(int $account, array $values): array
    {
        $digits = array_values(array_filter(array_map(strval(...), $values), ctype_digit(...)));

        return $account === 0 || $digits === []
            ? []
            : DB::table('nodes')
                ->where('account_id', $account)
                ->whereIn('external_id', array_slice($digits, 0, 1000))
                ->pluck('name', 'external_id')
                ->all();
    }
}
