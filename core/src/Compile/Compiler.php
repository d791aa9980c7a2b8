<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Plan;

/**
 * Computes the writes after which every click of every ad arrives with the truth, and nothing else that arrives today
 * is lost.
 *
 * 1. As the account is switched, and as it might be (Switching), the best writes are searched for: each is a
 * compilation of its own.
 * 2. A search (Search) tries each way that the platform has of carrying the plan (Ways): a suffix, a template, landing
 * URLs. Each is a draft (Draft),
 *    worked out from the account downwards and proven ad by ad; what no ad needs is left out of it (Needed).
 * 3. Ads that the best way leaves untrue are served apart from the rest (Apart), where another way does better for
 * them.
 * 4. What is untrue even then is mended ad by ad (Mending), by trying each text that could give a key.
 * 5. What one round of this has made possible, the next one does (Rounds).
 *
 * Of two results the better loses less that arrives today, then leaves less unmet, then takes fewer writes. Each draft
 * costs one proof of the account: its time grows with the number of different texts, and for each ad by looking up what
 * it is like. Of many ads, ways and switches are chosen on a sample.
 */
final class Compiler
{
    public static function compile(
        Account $account,
        Plan $plan,
        Policy $policy = new Policy(),
        Progress $progress = new Progress(),
    ): Compiled {
        return self::of(Task::of($account, $plan, $policy, $progress));
    }

    public static function of(Task $task): Compiled
    {
        return Causes::named(Rounds::of($task), $task);
    }
}
