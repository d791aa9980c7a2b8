<?php

namespace App\Watching;

use App\Connectors\Connectors;
use App\Connectors\PlatformTrouble;
use App\Models\Account;
use App\Models\Node;
use App\Results\ResultDays;
use Illuminate\Support\Facades\DB;

/** Reads what platforms say of each ad and day. The last days are read again: platforms restate them. */
final readonly class PlatformFigures
{
    /** So many days back, where nothing is known yet. */
    private const FIRST = 90;

    private const AT_ONCE = 1000;

    private const SAID = ['impressions', 'clicks', 'cost', 'currency', 'conversions', 'value'];

    public function __construct(
        private Connectors $connectors,
        private Elements $elements,
        private WantedLines $wanted,
    ) {}

    /** @return int how many ads and days something was said of */
    public function read(Account $account): int
    {
        $today = now($account->client->time_zone);
        $from =
            $account->figures_to === null
                ? $today->copy()->subDays(self::FIRST)
                : \Illuminate\Support\Carbon::parse($account->figures_to)->subDays(
                    Settings::of($account->client)->provisional,
                );
        $many = 0;
        try {
            $said = $this->connectors
                ->to($account->link)
                ->figures($account->link, $account->external_id, $from->toDateString(), $today->toDateString());
            $some = [];
            foreach ($said as $figures) {
                $some[] = $figures;
                if (count($some) === self::AT_ONCE) {
                    $many += $this->keep($account, $some);
                    $some = [];
                }
            }
            $many += $this->keep($account, $some);
            $account->update([
                'figures_to' => $today->toDateString(),
                'figures_at' => now(),
                'figures_problem' => null,
            ]);
        } catch (PlatformTrouble $e) {
            $account->update(['figures_at' => now(), 'figures_problem' => $e->getMessage()]);
        }

        return $many;
    }

    /**
     * @param list<\App\Connectors\Figures> $some
     * @param list<string> $said what counts of them; the rest stays as it was
     * @return int how many are of ads that are known
     */
    public function keep(Account $account, array $some, array $said = self::SAID): int
    {
        if ($some === []) {
            return 0;
        }
        $ids = Node::withTrashed()
            ->where(['account_id' => $account->id, 'is_ad' => true])
            ->whereIn('external_id', array_values(array_unique(array_column($some, 'ad'))))
            ->pluck('id', 'external_id')
            ->all();
        $above = $this->elements->above(array_values($ids));
        $this->wanted->know($account, array_values($ids));
        $rows = [];
        foreach ($some as $figures) {
            $node = $ids[$figures->ad] ?? null;
            if ($node !== null) {
                $rows[] = [
                    'client_id' => $account->client_id,
                    'day' => $figures->day,
                    ...$above[$node],
                    'impressions' => $figures->impressions,
                    'clicks' => $figures->clicks,
                    'cost' => $figures->cost,
                    'currency' => $figures->currency,
                    'conversions' => $figures->conversions,
                    'value' => $figures->value,
                ];
            }
        }
        DB::transaction(static function () use ($account, $rows, $said): void {
            DB::table('figures')->upsert($rows, ['account_id', 'day', 'node_id'], $said);
            ResultDays::changed($account->client_id, array_column($rows, 'day'));
        }, 3);

        return count($rows);
    }
}
