<?php

namespace App\Watching;

use App\Agreements\Agreements;
use App\Jobs\TouchByKeys;
use App\Models\Client;
use App\Support\Text;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Url\Query;

/**
 * Keys that are or were in a client's plans, but for those that every record has a column for. What sessions say by
 * them is kept with them, by the keys' numbers.
 */
final readonly class PlanKeys
{
    private const COLUMNS = ['source', 'medium', 'campaign', 'term', 'content'];

    private const LONGEST = 191;

    public function __construct(private Agreements $agreements) {}

    /** @return array<string, int> the numbers of keys by their names, the first that was known first */
    public function of(Client $client): array
    {
        return DB::table('plan_keys')->where('client_id', $client->id)->orderBy('id')->pluck('id', 'name')->all();
    }

    /** The keys of a plan. What has arrived with those that are new is told by them too, before long. */
    public function learn(Client $client, Plan $plan): void
    {
        $columns = $this->agreements->channels($client)->keys;
        $others = array_filter(
            array_diff(
                $plan->keys(),
                array_map(static fn (string $c): string => $columns[$c] ?? "utm_{$c}", self::COLUMNS),
            ),
            static fn (string $name): bool => mb_strlen($name) <= self::LONGEST,
        );
        $new = array_diff($others, array_keys($this->of($client)));
        if ($new !== []) {
            DB::table('plan_keys')->insertOrIgnore(
                array_map(
                    static fn (string $name): array => ['client_id' => $client->id, 'name' => $name],
                    array_values($new),
                ),
            );
            TouchByKeys::dispatch($client->id, array_values($new))->afterCommit();
        }
    }

    /**
     * What a URL says by keys: the first of each, if it is not empty.
     *
     * @param array<string, int> $numbers by names
     * @return string|null JSON: number → value; null: it says nothing by them
     */
    public static function said(array $numbers, string $url): ?string
    {
        return $numbers === [] ? null : self::json($numbers, Query::first($url));
    }

    /**
     * @param array<string, int> $numbers by names
     * @param array<string, string> $values by names
     */
    public static function json(array $numbers, array $values): ?string
    {
        $said = [];
        foreach ($numbers as $name => $number) {
            if (($values[$name] ?? '') !== '') {
                $said[$number] = Text::fit($values[$name], 255);
            }
        }

        return $said === [] ? null : json_encode($said, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }
}
