<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Proof\Contexts;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Stop;

/**
 * Clicks every ad in every context as it was and as it would be, and tells what is lost that is not the plan's. Knows
 * nothing of how proofs are made.
 */
final class BruteHarm
{
    /** @return list<string> */
    public static function in(Account $before, Account $after, Plan $plan): array
    {
        $lost = [];
        $ads = iterator_to_array($after->ads());
        foreach ($before->ads() as $key => $path) {
            $truth = Truth::of($plan, $before->dialect, $plan->lane($path), static fn (): bool => false);
            $ours = array_map(strval(...), array_keys($truth->choices + $truth->unmet));
            $was = Route::of($path, $before->settings, $before->hops);
            $now = Route::of($ads[$key], $after->settings, $after->hops);
            $fields = [...$was->fields(), ...$now->fields()];
            foreach (Contexts::all($fields, $before->dialect, $path->campaignType()) as $context) {
                [$then, $next] = [$was->trace($context), $now->trace($context)];
                if ($then->landed === null) {
                    continue;
                }
                if ($next->landed === null) {
                    $lost[] = "{$key}: does not land";

                    continue;
                }
                foreach ($then->trail as [$url, $stop]) {
                    $host = parse_url($url, PHP_URL_HOST);
                    if (
                        $stop === Stop::Hop
                        && ! in_array(
                            $host,
                            array_map(static fn (array $step): mixed => parse_url($step[0], PHP_URL_HOST), [
                                ...$next->trail,
                                [(string) $next->backgroundUrl],
                            ]),
                            true,
                        )
                    ) {
                        $lost[
                            "{$key} hop"
                        ] = "{$key}: does not pass {$host} any more: {$then->clickUrl} → {$next->clickUrl}";
                    }
                }
                $keys = array_column($next->arrival, 0);
                foreach ($then->arrival as [$name, $value]) {
                    // a value that has swallowed what stood behind it may come without that
                    $fits =
                        in_array([$name, $value], $next->arrival, true)
                        || (strpbrk($value, '?&#=') !== false && in_array($name, $keys, true));
                    if (! in_array($name, $ours, true) && ! $fits) {
                        $lost[
                            "{$key} {$name}"
                        ] = "{$key}: {$name}={$value} is lost: {$then->clickUrl} → {$next->clickUrl}";
                    }
                }
            }
        }

        return array_values($lost);
    }
}
