<?php

namespace App\Watching;

use App\Accounts\Trees;
use App\Agreements\Agreements;
use App\Models\Account;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;

/**
 * Under which source, medium, campaign and channel the clicks of an ad are wanted to be counted, by the plan: there
 * stands what they cost.
 */
final readonly class WantedLines
{
    private const AT_ONCE = 500;

    public function __construct(private Agreements $agreements) {}

    /** @param list<int> $ads whose lines are worked out, if they are not known */
    public function know(Account $account, array $ads): void
    {
        $known = DB::table('wanted_lines')->whereIntegerInRaw('node_id', $ads)->pluck('node_id')->all();
        $unknown = array_values(array_diff($ads, $known));
        if ($unknown === []) {
            return;
        }
        $plan = $account->client->plan()?->read();
        $channels = $this->agreements->channels($account->client);
        foreach (array_chunk($unknown, self::AT_ONCE) as $some) {
            $branch = Trees::branch($account, ...$some);
            $rows = [];
            foreach ($some as $ad) {
                $path = $branch->path($ad);
                $values = $plan === null ? [] : self::truth($plan, $path);
                $rows[] = [
                    'node_id' => $ad,
                    'client_id' => $account->client_id,
                    'platform' => $path->dialect->id,
                    'channel' => mb_substr(
                        $plan->channels[$path->dialect->family]
                            ?? $channels->of($values + ['family' => $path->dialect->family])->channel,
                        0,
                        120,
                    ),
                    ...array_map(static fn (string $v): string => mb_substr($v, 0, 255), [
                        'source' => $values['utm_source'] ?? '',
                        'medium' => $values['utm_medium'] ?? '',
                        'campaign' => $values['utm_campaign'] ?? '',
                        'content' => $values['utm_content'] ?? '',
                    ]),
                ];
            }
            DB::table('wanted_lines')->insertOrIgnore($rows);
        }
    }

    /** The plan, or what its elements are called, has changed: they are worked out anew. */
    public function anew(Account $account): void
    {
        $ads = DB::table('wanted_lines as w')
            ->join('nodes as n', 'n.id', 'w.node_id')
            ->where('n.account_id', $account->id)
            ->pluck('w.node_id')
            ->all();
        foreach (array_chunk($ads, self::AT_ONCE) as $some) {
            DB::transaction(function () use ($account, $some): void {
                DB::table('wanted_lines')->whereIntegerInRaw('node_id', $some)->delete();
                $this->know($account, $some);
            });
        }
    }

    /** @return array<string, string> what every click carries, whatever else the click is */
    private static function truth(Plan $plan, Path $path): array
    {
        $fields = $path->fields(false);
        $truth = Truth::of(
            $plan,
            $path->dialect,
            $path->campaignType(),
            static fn (string $field, Shape $shape): bool => $shape->of($fields[$field] ?? '') === ($fields[$field] ?? ''),
        );

        return $truth->values($fields);
    }
}
