<?php

namespace App\Balance;

use App\Dialects\Dialects;
use App\Models\Client;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Conditional;
use Vestigon\Core\Template\Element\CustomParameter;
use Vestigon\Core\Template\TemplateReader;

/** What became of clicks, out of the records: what platforms have counted of each ad and day, and its sessions. */
final class StairRecords
{
    /** By what it is told, and where figures and sessions have it. */
    public const BY = [
        'day' => ['f.day', 's.day'],
        'platform' => ['w.platform', 'w.platform'],
        'account' => ['f.account_id', 's.account_id'],
        'campaign' => ['f.campaign_id', 's.campaign_id'],
        'ad' => ['f.node_id', 's.node_id'],
    ];

    private const KEYS = ['utm_source', 'utm_medium'];

    /** @var array<string, bool> what stands in a key, by platform and text */
    private array $raw = [];

    /** @var array<string, TemplateReader> */
    private array $readers = [];

    public function __construct(private readonly Dialects $dialects) {}

    /**
     * @return \Generator<array<string, mixed>> what it is told by, `step` (clicks, broken, untracked: as platforms have
     *     it; arrived, elsewhere with its `channel`, empty, raw, repeats; each with the `tracker` that its clicks
     *     pass), `n`, and of clicks `cost` in `currency`, with the `conversions` and their `value` that platforms claim
     */
    public function rows(Asked $asked): \Generator
    {
        yield from $this->counted($asked);
        yield from $this->arrived($asked);
    }

    private function counted(Asked $asked): \Generator
    {
        [$by, $within, $sessions] = [$asked->by, $asked->within, $asked->sessions];
        $of = [$asked->client->id, $asked->from, $asked->to];
        [$told, $groups, $where, $also] = self::sql($by, $within, 0);
        // a session does not know its platform; that of its ad does for all of them
        [, , $came, $alsoCame] = self::sql([], $within !== null && $within[0] === 'platform' ? null : $within, 1);
        // account by account, as they are stored: by client and day each would be looked up by itself; one campaign's
        // are few among them
        $index = ($within[0] ?? null) === 'campaign' ? 'figures_campaign_id_day_index' : 'primary';
        $accounts = implode(', ', $asked->client->accounts()->pluck('id')->all() ?: [0]);
        $reach = 'coalesce(t.reach, w.reach)'; // by what the ad said on that day
        $rows = DB::select(
            "select {$told} w.tracker_id tracker, f.currency, sum(f.clicks) clicks, sum(f.cost) cost,
                sum(f.conversions) conversions, sum(f.value) value,
                sum(if({$reach} = 'broken', greatest(0, cast(f.clicks as signed) - coalesce(v.n, 0)), 0)) broken,
                sum(if({$reach} = 'untracked', greatest(0, cast(f.clicks as signed) - coalesce(v.n, 0)), 0)) untracked
            from figures f force index ({$index}) join wanted_lines w on w.node_id = f.node_id
            left join former_reaches t force index (primary)
                on t.node_id = f.node_id and f.day between t.since and t.until
            left join (
                select s.node_id, s.day, count(*) n from {$sessions->table} s
                where s.client_id = ? and s.day between ? and ? and s.node_id is not null and s.views > 0{$came}
                    {$sessions->within('s')}
                group by s.node_id, s.day
            ) v on v.node_id = f.node_id and v.day = f.day
            where f.account_id in ({$accounts}) and f.day between ? and ?{$where}
            group by {$groups} w.tracker_id, f.currency",
            [...$of, ...$alsoCame, $asked->from, $asked->to, ...$also],
        );
        foreach ($rows as $r) {
            $is = ['tracker' => $r->tracker] + array_intersect_key((array) $r, array_flip($by));
            yield [...$is, 'step' => 'clicks', 'n' => (int) $r->clicks, 'cost' => (int) $r->cost,
                'currency' => $r->currency, 'conversions' => (int) $r->conversions, 'value' => (int) $r->value];
            foreach (['broken', 'untracked'] as $step) {
                if ((int) $r->{$step} > 0) {
                    yield [...$is, 'step' => $step, 'n' => (int) $r->{$step}];
                }
            }
        }
    }

    private function arrived(Asked $asked): \Generator
    {
        [$by, $within, $sessions] = [$asked->by, $asked->within, $asked->sessions];
        $of = [$asked->client->id, $asked->from, $asked->to];
        [$told, $groups, $where, $also] = self::sql($by, $within, 1);
        $wantsKeys = array_intersect(self::KEYS, $asked->client->plan()?->read()->keys() ?? []) !== [];
        $rows = DB::select(
            "select {$told} w.platform of_platform, w.tracker_id tracker, s.how, s.channel, w.channel wanted,
                s.source, s.medium, s.campaign name, (s.click_id <> '' and exists (
                    select 1 from {$sessions->table} e {$sessions->byClick}
                    where e.client_id = s.client_id and e.click_id = s.click_id{$sessions->within('e')}
                        and (e.begin < s.begin or (e.begin = s.begin and e.id < s.id))
                )) again, count(*) n
            from {$sessions->table} s join wanted_lines w on w.node_id = s.node_id
            where s.client_id = ? and s.day between ? and ? and s.views > 0{$where}{$sessions->within('s')}
            group by {$groups} w.platform, w.tracker_id, s.how, s.channel, w.channel, s.source, s.medium,
                s.campaign, again",
            [...$of, ...$also],
        );
        foreach ($rows as $r) {
            $step = $this->step($asked->client, $r, $wantsKeys);
            yield [
                ...array_intersect_key((array) $r, array_flip($by)),
                'step' => $step,
                'tracker' => $r->tracker,
                'n' => (int) $r->n,
                ...$step === 'elsewhere' ? ['channel' => $r->channel] : [],
            ];
        }
    }

    /**
     * @param list<string> $by
     * @param array{0: string, 1: int|string}|null $within
     * @param 0|1 $of figures, or sessions
     * @return array{string, string, string, list<int|string>} what to select, what to group by, what else to ask
     */
    private static function sql(array $by, ?array $within, int $of): array
    {
        return [
            implode('', array_map(static fn (string $b): string => self::BY[$b][$of]." `{$b}`, ", $by)),
            implode('', array_map(static fn (string $b): string => self::BY[$b][$of].', ', $by)),
            $within === null ? '' : ' and '.self::BY[$within[0]][$of].' = ?',
            $within === null ? [] : [$within[1]],
        ];
    }

    private function step(Client $client, object $r, bool $wantsKeys): string
    {
        $byKeys = $r->how === 'keys';

        return match (true) {
            (bool) $r->again => 'repeats',
            $byKeys && $this->isRaw($client, $r->of_platform, "{$r->source}\n{$r->medium}\n{$r->name}") => 'raw',
            ! $byKeys && $this->isRaw($client, $r->of_platform, $r->name) => 'raw',
            ! $byKeys && $wantsKeys => 'empty',
            $r->channel !== $r->wanted => 'elsewhere',
            default => 'arrived',
        };
    }

    /** Does it hold a token of the platform, or a custom parameter, as it stood in the text? */
    private function isRaw(Client $client, string $platform, string $value): bool
    {
        return $this->raw["{$platform} {$value}"] ??= $this->holdsToken($client, $platform, $value);
    }

    private function holdsToken(Client $client, string $platform, string $value): bool
    {
        $dialect = $this->dialects->find($client->id, $platform);
        if ($dialect?->syntax === null) {
            return false;
        }
        $reader = $this->readers[$platform] ??= new TemplateReader($dialect);
        foreach ($reader->read($value)->walk() as $part) {
            if (
                $part instanceof CatalogueToken
                || $part instanceof CustomParameter
                || $part instanceof Conditional
            ) {
                return true;
            }
        }

        return false;
    }
}
