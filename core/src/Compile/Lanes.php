<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Lane;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Variant;

/** The lanes that an account's campaigns are in, and what is said above them. */
final readonly class Lanes
{
    /** @var non-empty-list<Lane> what counts for most campaigns first */
    public array $all;

    private Lane $main;

    /** How deep the elements stand by which variants of the plan are told apart here; 0: there are none. */
    public int $depth;

    public function __construct(Account $account, private Plan $plan)
    {
        $lanes = $many = [];
        foreach ($account->nodesOn($account->dialect->levelOf(Role::Campaign)?->id) as $key => $node) {
            if ($node->type !== null) {
                $lane = $plan->variants === [] ? new Lane($node->type) : $plan->lane($account->pathTo($key));
                $lanes[$lane->id] = $lane;
                $many[$lane->id] = ($many[$lane->id] ?? 0) + 1;
            }
        }
        arsort($many);
        $all = array_map(static fn (string $id): Lane => $lanes[$id], array_keys($many)) ?: [new Lane(null)];
        $this->main = $all[0];
        foreach ($plan->variants === [] ? [] : $account->wideNodes() as $key => $node) {
            $all[] = $this->of($account->pathTo((string) $key));
        }
        $this->all = array_values(array_column($all, null, 'id'));
        $this->depth = max([
            0,
            ...array_map(static fn (Variant $v): int => $v->depthOn($account->dialect), $plan->variants),
        ]);
    }

    /** What counts for an element; above the campaigns, what counts for most of them. */
    public function of(Path $path): Lane
    {
        $lane = $this->plan->lane($path);
        if ($lane->type !== null) {
            return $lane;
        }
        $isAbove = $path->withRole(Role::Campaign) === null;

        return new Lane($this->main->type, $lane->variant === '' && $isAbove ? $this->main->variant : $lane->variant);
    }
}
