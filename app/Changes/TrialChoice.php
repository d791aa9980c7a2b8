<?php

namespace App\Changes;

use App\Models\Account as AccountModel;
use App\Models\Node;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Stage;
use Vestigon\Core\Compile\Staged;
use Vestigon\Core\Compile\Trial;
use Vestigon\Core\Compile\Write;

/**
 * Chooses what a change is tried on first: an ad of each campaign type; or, where ads do not take the texts, the
 * smallest part of the account that does.
 */
final class TrialChoice
{
    private const MOST_ADS = 3;

    /** A part of the account with more of its ads than this is no trial. */
    private const LARGEST_PART = 0.25;

    /**
     * @param list<Write> $writes
     * @param list<array<string, mixed>> $samples of the story
     * @return array{Staged, array<string, mixed>|null} the writes in order, and what the trial is; null: there is none
     */
    public static function of(
        AccountModel $account,
        Account $before,
        Account $after,
        array $writes,
        array $samples,
    ): array {
        $alone = $wider = [];
        foreach (self::telling($samples) as $sample) {
            $trial = Trial::on((string) $sample['node'], $before, $after);
            if ($trial?->isOnAdAlone()) {
                $alone[$sample['type'] ?? ''] ??= $trial;
            } elseif ($trial !== null) {
                $wider[] = $trial;
            }
        }
        $trials =
            $alone === []
                ? self::smallest($account, $wider)
                : array_slice(array_values($alone), 0, self::MOST_ADS);
        $staged = Staged::of($writes, $trials);
        $n = count(array_filter($staged->writes, static fn (array $s): bool => $s[1] === Stage::Trial));
        if ($n === 0 || $n === count($staged->writes)) {
            return [Staged::of($writes, []), null];
        }
        if ($trials === []) {
            return [$staged, self::ofSwitches($after, $n, self::telling($samples))];
        }

        return [
            $staged,
            [
                'ads' => array_map(
                    static fn (Trial $t): array => ['node' => (int) $t->ad, 'name' => $after->nodes[$t->ad]->name],
                    $trials,
                ),
                'writes' => $n,
                'touches' => $alone === [] ? self::adsBelow($trials[0]) : count($trials),
                'alone' => $alone !== [],
                'asIf' => array_filter($trials, static fn (Trial $t): bool => $t->asIf !== []) !== [],
            ],
        ];
    }

    /**
     * Nothing but what the account switches is tried: it touches every ad.
     *
     * @param list<array<string, mixed>> $samples
     * @return array<string, mixed>
     */
    private static function ofSwitches(Account $after, int $writes, array $samples): array
    {
        return [
            'ads' => array_map(
                static fn (array $s): array => ['node' => $s['node'], 'name' => $s['name']],
                array_slice($samples, 0, self::MOST_ADS),
            ),
            'writes' => $writes,
            'touches' => iterator_count($after->adNodes()),
            'alone' => false,
            'asIf' => false,
        ];
    }

    /**
     * @param list<array<string, mixed>> $samples
     * @return list<array<string, mixed>> those on which a click tells most: what arrives moves, as the plan has it if
     *     that can be
     */
    public static function telling(array $samples): array
    {
        $moved = array_filter(
            $samples,
            static fn (array $s): bool => $s['before']['arrival'] !== $s['after']['arrival'],
        );

        return array_values(
            array_filter($moved, static fn (array $s): bool => $s['after']['state'] === 'proven') ?: $moved,
        );
    }

    /**
     * @param list<Trial> $trials
     * @return list<Trial> the one that touches the fewest ads, if they are few enough
     */
    private static function smallest(AccountModel $account, array $trials): array
    {
        usort($trials, static fn (Trial $a, Trial $b): int => self::adsBelow($a) <=> self::adsBelow($b));
        $ads = (int) $account->nodes()->whereNull('parent_id')->sum('ads');

        return $trials !== [] && self::adsBelow($trials[0]) <= max(1, self::LARGEST_PART * $ads)
            ? [$trials[0]]
            : [];
    }

    private static function adsBelow(Trial $trial): int
    {
        return Node::query()->findOrFail((int) $trial->nodes[0])->ads;
    }
}
