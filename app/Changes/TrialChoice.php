<?php

namespace App\Changes;

use App\Models\Account as AccountModel;
use App\Models\Node;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Stage;
use Vestigon\Core\Compile\Staged;
use Vestigon\Core\Compile\Trial;
use Vestigon\Core\Compile\Write;

/** Chooses what a change is tried on first: an ad of each campaign type, or the smallest part of the account that the platform allows. */
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
    public static function of(AccountModel $account, Account $before, Account $after, array $writes, array $samples): array
    {
        $trials = [];
        foreach ($samples as $sample) {
            if ($sample['after']['state'] === 'proven' && count($trials) < self::MOST_ADS) {
                $trials[$sample['type'] ?? ''] ??= Trial::on((string) $sample['node'], $before, $after);
            }
        }
        $trials = array_values(array_filter($trials));
        if ($trials !== []) {
            $staged = Staged::of($writes, $trials);
            $ads = array_map(static fn (Trial $t): array => ['node' => (int) $t->ad, 'name' => $after->nodes[$t->ad]->name], $trials);
            $n = count(array_filter($staged->writes, static fn (array $s): bool => $s[1] === Stage::Trial));

            return count($staged->writes) === $n ? [Staged::beginningOn($writes, []), null] : [$staged, ['ads' => $ads, 'writes' => $n, 'touches' => count($ads), 'alone' => true, 'asIf' => array_filter($trials, static fn (Trial $t): bool => $t->asIf !== []) !== []]];
        }

        return self::onPart($account, $before, $writes, $samples);
    }

    /**
     * @param list<Write> $writes
     * @param list<array<string, mixed>> $samples
     * @return array{Staged, array<string, mixed>|null}
     */
    private static function onPart(AccountModel $account, Account $before, array $writes, array $samples): array
    {
        $written = array_fill_keys(array_map(static fn (Write $w): string => $w->node, $writes), true);
        $best = null;
        foreach ($samples as $sample) {
            $nodes = array_values(array_filter($before->keysTo((string) $sample['node']), static fn (string $k): bool => isset($written[$k])));
            if ($sample['after']['state'] === 'proven' && $nodes !== []) {
                $top = Node::query()->findOrFail((int) $nodes[0]);
                $touches = $top->is_ad ? 1 : $top->ads;
                $best = $best === null || $touches < $best[0] ? [$touches, $nodes, $sample] : $best;
            }
        }
        $ads = Node::query()->where('account_id', $account->id)->where('is_ad', true)->count();
        if ($best === null || $best[0] > max(1, self::LARGEST_PART * $ads)) {
            return [Staged::beginningOn($writes, []), null];
        }
        $staged = Staged::beginningOn($writes, $best[1]);
        $n = count(array_filter($staged->writes, static fn (array $s): bool => $s[1] === Stage::Trial));

        return $n === count($writes) ? [Staged::beginningOn($writes, []), null] : [$staged, ['ads' => [['node' => $best[2]['node'], 'name' => $best[2]['name']]], 'writes' => $n, 'touches' => $best[0], 'alone' => false, 'asIf' => false]];
    }
}
