<?php

namespace App\Dialects;

use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Client;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Proof\State;
use Vestigon\Core\Proof\Survey;

/** What another revision of a platform would do to the proofs of the accounts that are on it; nothing is kept. */
final readonly class Consequences
{
    /** Ads of an account that are looked at; of a larger one it is said that there are more. */
    public const MOST = 20_000;

    private const SAMPLES = 5;

    public function __construct(private Client $client) {}

    /** @return list<array<string, mixed>> one for each account on the platform; none without a plan */
    public function of(Dialect $dialect): array
    {
        $plan = $this->client->plan()?->read();
        $on = $plan === null ? [] : $this->client->accounts()->where('dialect', $dialect->id)->orderBy('name')->get();
        $all = [];
        foreach ($on as $account) {
            $survey = new Survey(Trees::wide($account)->on($dialect), $plan);
            $all[] = ['id' => $account->id, 'name' => $account->name, ...$this->account($account, $survey)];
        }

        return $all;
    }

    /** @return array<string, mixed> */
    private function account(Account $account, Survey $survey): array
    {
        $counts = ['looked' => 0, 'proven' => 0, 'breaks' => 0, 'mends' => 0, 'samples' => []];
        foreach (Trees::each($account, ads: true) as $row => $ad) {
            if ($counts['looked'] === self::MOST) {
                break;
            }
            $verdict = $survey->ad($ad, (string) $row->parent_id);
            $was = $row->state === State::Proven->value;
            $is = $verdict?->state === State::Proven;
            $counts['looked']++;
            $counts['proven'] += (int) $is;
            $counts['mends'] += (int) ($is && ! $was);
            $counts['breaks'] += (int) ($was && ! $is);
            if ($was && ! $is && count($counts['samples']) < self::SAMPLES) {
                $counts['samples'][] = [
                    'node' => $row->id,
                    'name' => $row->name,
                    'reason' => $verdict->counterexamples[0]->reason ?? 'It carries no key of the plan any more.',
                ];
            }
        }
        $ads = (int) $account->nodes()->whereNull('parent_id')->value('ads');

        return ['ads' => max($ads, $counts['looked']), ...$counts];
    }
}
