<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Trace\Settings;

/**
 * Searches under each setting of the account that is worth trying for a plan. Delivery is never switched.
 *
 * Of many ads, the settings are chosen on a sample.
 */
final class Switching
{
    /** The best writes, and before them the switches that they need. */
    public static function best(Task $task): Compiled
    {
        [$settings, $found] = self::chosen($task);
        $switched = $task->switched($settings);
        $found = Mending::of($switched, $found ?? Search::for($switched));
        $switches = self::writes($task->account, $settings);

        return $switches === [] ? $found : $found->after($switches, $task->proven->asItIs());
    }

    /**
     * The settings under which least is unmet, then least is written; today's if they are as good.
     *
     * @return array{Settings, Compiled|null} with what was found under them, where it was found for the whole account
     */
    private static function chosen(Task $task): array
    {
        $today = $task->account->settings;
        $toTry = self::toTry($task);
        if ($toTry === []) {
            return [$today, null];
        }
        $part = Sample::of($task->account, $task->plan);
        $sample = $part === $task->account ? $task : $task->on($task->scope->for($part));
        $found = Search::for($sample);
        [$chosen, $best] = [$today, $found->rank()];
        foreach ($toTry as $settings) {
            if ($best[2] <= 1 && [$best[0], $best[1]] === [0, 0]) {
                break; // a switch is a write too: what takes one write can't be done with fewer
            }
            $other = Search::for($sample->switched($settings));
            $rank = $other->rank();
            $rank[2] += count(self::writes($task->account, $settings));
            [$best, $chosen, $found] = $rank < $best ? [$rank, $settings, $other] : [$best, $chosen, $found];
        }

        return [$chosen, $sample === $task ? $found : null];
    }

    /**
     * @return list<Settings> other settings than today's: each choice of automatic tags, with the click ID on where the
     *     plan wants it
     */
    private static function toTry(Task $task): array
    {
        $account = $task->account;
        if ($task->policy->switches === Switches::Leave || ! $task->scope->isWhole()) {
            return [];
        }
        $tried = [$account->settings];
        if ($task->plan->clickIdRequired && self::isOff($account)) {
            $tried[] = $account->settings->with(Setting::ClickId, 'on');
        }
        $tags = $account->dialect->autoTags;
        $mode = $account->settings->autoTags ?? $tags?->default;
        foreach ($tried as $settings) {
            foreach ($tags === null || ! self::concerns($task) ? [] : $tags->modes as $other) {
                if ($other !== $mode) {
                    $tried[] = $settings->with(Setting::AutoTags, $other->value);
                }
            }
        }

        return array_slice($tried, 1);
    }

    /** Is the click ID switched off, and could be on? */
    public static function isOff(Account $account): bool
    {
        return $account->dialect->clickId !== null
            && ! $account->dialect->clickId->isOn($account->settings->clickId);
    }

    /** @return list<Write> from what the account has switched to what it is to have */
    public static function writes(Account $account, Settings $to): array
    {
        $writes = [];
        foreach (Setting::cases() as $setting) {
            [$before, $after] = [$account->settings->text($setting), $to->text($setting)];
            if ($before !== $after) {
                $writes[] = Write::setting(
                    (string) array_search(null, $account->parents, true),
                    $setting,
                    $before,
                    $after,
                );
            }
        }

        return $writes;
    }

    /** Has any of the platform's tags a key of the plan? */
    private static function concerns(Task $task): bool
    {
        foreach ($task->plan->keys() as $key) {
            if ($task->account->dialect->autoTags?->tag($key) !== null) {
                return true;
            }
        }

        return false;
    }
}
