<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\Verdict;
use Vestigon\Core\Url\Address;

/**
 * What no way of carrying the plan helps against: keys that the platform can't give, a click ID that is switched off,
 * ads without a page to land on.
 */
final class BeyondHelp
{
    private readonly Prover $prover;

    /**
     * @var array<string, array<string, string>> parent → the keys that can't be given to its ads, and why: all are of
     *     one campaign
     */
    private array $ungivable = [];

    public function __construct(private readonly Account $account, Plan $plan)
    {
        $this->prover = Prover::for($account, $plan);
    }

    /** @return list<string> an ad's faults, without those */
    public function without(string $ad, Verdict $verdict): array
    {
        $path = $this->account->pathTo($ad);
        if (! Address::isWeb((new Inheritance($path))->effective(SlotKind::Landing)->text ?? '')) {
            return [];
        }
        $keys = $this->ungivable[$this->account->parents[$ad] ?? ''] ??=
            $this->prover->truthOf($path)->unmet
            + (Switching::isOff($this->account)
                ? [(string) $this->account->dialect->clickId?->parameter => '']
                : []);
        $curable = array_filter($verdict->counterexamples, static fn ($c): bool => ! isset($keys[$c->key]));

        return array_values(array_unique(array_map(static fn ($c): string => "{$c->code} {$c->key}", $curable)));
    }
}
