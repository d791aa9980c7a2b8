<?php

namespace App\Accounts;

use App\Models\Account;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Proof\State;
use Vestigon\Core\Proof\Survey;

/** What would become of an account's proof if something else were agreed, or a platform other; nothing is kept. */
final class WhatIf
{
    /** Ads that are looked at: an answer is there soon, and of a larger account it says where to go on. */
    private const FIRST = 10_000;

    private const MORE = 100_000;

    private const SAMPLES = 5;

    /**
     * @param \Closure(CoreAccount): Survey $surveyed of the account as it would be, or of some of it, as it is
     * @param int $above only ads with higher numbers in the database
     * @param int|null $most so many of them; null: as many as an answer has time for
     * @return array{ads: int, looked: int, next: int|null, proven: int, breaks: int, mends: int,
     *     samples: list<array{node: int, name: string, reason: string}>} ads that would be proven; those that are now
     *     and would be no more, with some of them; those that would be and are not now; next: there are more above it
     */
    public static function of(Account $account, \Closure $surveyed, int $above = 0, ?int $most = null): array
    {
        $counts = ['looked' => 0, 'next' => null, 'proven' => 0, 'breaks' => 0, 'mends' => 0, 'samples' => []];
        $most ??= $above === 0 ? self::FIRST : self::MORE;
        $survey = $surveyed(Trees::above($account, $above, $most));
        $last = $above;
        foreach (Trees::each($account, true, new Between($above)) as $row => $ad) {
            if ($counts['looked'] === $most) {
                $counts['next'] = $last;
                break;
            }
            $last = $row->id;
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
