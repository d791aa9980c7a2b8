<?php

namespace App\Meant;

use App\Agreements\Agreements;
use App\Models\Client;
use App\Models\Plan;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Plan\Plan as CorePlan;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Watch\Days;
use Vestigon\Core\Watch\Instant;
use Vestigon\Core\Watch\Meant;

/**
 * Reads arrivals as they were meant: those whose ad is known say what the plan wants them to say, by what is known of
 * the click. It counts what it heals.
 */
final class Healing
{
    /** Where an arrival has what is known of its click. */
    private const FIELDS = [
        'keyword.text' => 'keyword',
        'placement' => 'placement',
        'device' => 'device',
        'click.id' => 'click_id',
    ];

    private const KEYS = ['campaign', 'term', 'content'];

    /** Pairs of values that are told apart; what comes later is not counted by value. */
    private const MOST = 20_000;

    public int $views = 0;

    public int $healed = 0;

    public int $unknown = 0;

    /** @var array<string, int> views by key, what arrived, and what was meant, each behind \0 */
    public array $values = [];

    /** @var array<string, Truth> by plan, platform and campaign type */
    private array $truths = [];

    /** @var array<int, CorePlan> by revision */
    private array $read = [];

    /** @var list<Plan> the first first */
    private readonly array $plans;

    private readonly Days $days;

    /** @var array<string, string> column → key of a URL */
    private readonly array $keys;

    public function __construct(
        private readonly Client $client,
        private readonly Paths $paths,
        private readonly bool $isThen,
        Agreements $agreements,
    ) {
        $plans = $client->plans()->orderBy('revision')->get()->all();
        $this->plans = $isThen ? $plans : array_values(array_filter([$client->plan()]));
        $this->days = new Days((string) $client->time_zone);
        $names = $agreements->channels($client)->keys;
        $this->keys = array_map(
            static fn (string $name): string => $names[$name] ?? "utm_{$name}",
            array_combine(self::KEYS, self::KEYS),
        );
    }

    /**
     * @param list<object> $rows arrivals, with the columns of Gathering::EVENT
     * @return list<object> the same as they were meant
     */
    public function heal(array $rows): array
    {
        $ads = array_filter(array_column($rows, 'node_id'), static fn (?int $ad): bool => $ad !== null);
        $this->paths->expect(array_values(array_unique($ads)));

        return array_map(fn (object $row): object => $this->one($row), $rows);
    }

    private function one(object $row): object
    {
        $path = $row->node_id === null || $row->kind !== 'view' ? null : $this->paths->of($row->node_id, $row->at);
        $truth = $path === null ? null : $this->truth($path, $row->at);
        if ($path === null || $truth === null) {
            return $row;
        }
        $fields = $path->fields(published: false);
        foreach (self::FIELDS as $field => $column) {
            $fields += $row->{$column} === '' ? [] : [$field => $row->{$column}];
        }
        $meant = Meant::of($row->url, $truth, $fields);
        $this->views++;
        $this->healed += (int) ($meant->healed !== []);
        $this->unknown += (int) ($meant->unknown !== []);
        foreach ($meant->healed as [$key, $arrived, $was]) {
            $value = "{$key}\0".mb_strcut(mb_scrub($arrived), 0, 255)."\0".mb_strcut($was, 0, 255);
            if (isset($this->values[$value]) || count($this->values) < self::MOST) {
                $this->values[$value] = ($this->values[$value] ?? 0) + 1;
            }
        }
        $first = Query::first($meant->url);
        $row = clone $row;
        $row->url = $meant->url;
        foreach ($this->keys as $column => $key) {
            $row->{$column} = mb_strcut(mb_scrub($first[$key] ?? ''), 0, 255);
        }

        return $row;
    }

    private function truth(Path $path, string $at): ?Truth
    {
        $plan = $this->plan($this->days->day((int) Instant::read(str_replace(' ', 'T', $at).'Z')));
        if ($plan === null) {
            return null;
        }
        $read = $this->read[$plan->revision] ??= $plan->read();
        $lane = $read->lane($path);

        return $this->truths["{$plan->revision} {$path->dialect->id} {$lane->id}"]
            ??= Truth::of($read, $path->dialect, $lane, static fn (): bool => true);
    }

    /** The plan of a day; of days before the first, that. */
    private function plan(string $day): ?Plan
    {
        $of = $this->plans[0] ?? null;
        foreach ($this->isThen ? $this->plans : [] as $plan) {
            $since = $plan->from_day ?? $plan->created_at?->timezone($this->client->time_zone)->toDateString();
            $of = $since === null || $since <= $day ? $plan : $of;
        }

        return $of;
    }
}
