<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Dialect\Role;

/** What stands below the elements of an account. */
final class Branches
{
    /**
     * @var array<string, list<string>>|null node → its children; made when first asked for: where only ads are written
     *     to, nobody asks
     */
    private ?array $children = null;

    public function __construct(private readonly Account $account) {}

    /** @return iterable<string> the ads below a node, itself if it is one */
    public function adsBelow(string $node): iterable
    {
        $pending = [$node];
        while (($key = array_pop($pending)) !== null) {
            if ($this->isAd($key)) {
                yield $key;

                continue;
            }
            array_push($pending, ...$this->children($key));
        }
    }

    /** @return list<string> the nodes below a node that are no ads */
    public function widerBelow(string $node): array
    {
        $all = [];
        $pending = [$node];
        while (($key = array_pop($pending)) !== null) {
            foreach ($this->children($key) as $child) {
                if (! $this->isAd($child)) {
                    $all[] = $pending[] = $child;
                }
            }
        }

        return $all;
    }

    public function isAd(string $node): bool
    {
        return $this->account->dialect->level($this->account->nodes[$node]->level)?->role === Role::Ad;
    }

    public function depth(string $node): int
    {
        return $this->account->dialect->level($this->account->nodes[$node]->level)->depth ?? 0;
    }

    /** @return list<string> */
    private function children(string $node): array
    {
        if ($this->children === null) {
            $this->children = [];
            foreach ($this->account->parents as $key => $parent) {
                if ($parent !== null) {
                    $this->children[$parent][] = (string) $key;
                }
            }
        }

        return $this->children[$node] ?? [];
    }
}
