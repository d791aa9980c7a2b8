<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Counterexample;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Verdict;

/** Leaves out the writes without which no ad is worse off, from the ads upwards. */
final class Needed
{
    /** @var array<string, Node> the nodes as they will be, where they change */
    private array $after;

    /** @var array<string, list<string>> node → its children */
    private array $children = [];

    /** @var array<string, list<string>> ad → what is wrong with it after the writes */
    private array $faults = [];

    private readonly Prover $prover;

    /**
     * @param array<string, Node> $after
     */
    private function __construct(private readonly Account $before, array $after, private readonly Plan $plan)
    {
        $this->after = $after;
        $this->prover = Prover::for($before, $plan);
        foreach ($before->parents as $key => $parent) {
            if ($parent !== null) {
                $this->children[$parent][] = (string) $key;
            }
        }
        $survey = new Survey($before->with($after), $plan);
        foreach ($this->adsBelow(...array_map(strval(...), array_keys($before->parents, null, true))) as $ad) {
            $this->faults[$ad] = self::names($survey->ad($after[$ad] ?? $before->nodes[$ad], $before->parents[$ad]));
        }
    }

    /**
     * @param array<string, Node> $after the nodes as they will be, where they change
     * @param list<Write> $writes in the order to apply
     * @return array{list<Write>, array<string, Node>} the writes that are needed, and the nodes after them
     */
    public static function of(Account $before, array $after, array $writes, Plan $plan): array
    {
        $needed = new self($before, $after, $plan);
        do { // what one write made needless may make another so
            $count = count($writes);
            $writes = $needed->once($writes);
        } while (count($writes) < $count);

        return [$writes, $needed->after];
    }

    /**
     * @param list<Write> $writes
     * @return list<Write>
     */
    private function once(array $writes): array
    {
        $byNode = [];
        foreach ($writes as $i => $write) {
            $byNode[$write->node][$i] = $write;
        }
        uksort($byNode, fn (string|int $a, string|int $b): int => $this->depth((string) $b) <=> $this->depth((string) $a));
        foreach ($byNode as $node => $some) {
            $byNode[$node] = $this->kept((string) $node, $some);
        }
        $kept = array_replace([], ...array_values($byNode));
        ksort($kept);

        return array_values($kept);
    }

    /**
     * @param array<int, Write> $writes of one node
     * @return array<int, Write>
     */
    private function kept(string $node, array $writes): array
    {
        $ads = $this->adsBelow($node);
        if ($ads === []) {
            return $writes; // nothing can be told of it: the ads that come will need it
        }
        if ($this->isAsGood($node, $this->before->nodes[$node], $ads)) {
            return [];
        }
        foreach (count($writes) > 1 ? array_reverse($writes, true) : [] as $i => $write) {
            $stands = $this->after[$node];
            if ($this->isAsGood($node, $write->slot === null ? $stands->withCustom((string) $write->custom, $write->before) : $stands->withSlot($write->slot, $write->before), $ads)) {
                unset($writes[$i]);
            }
        }

        return $writes;
    }

    /**
     * Is no ad worse off with the node like this? Leaves the node so if none is.
     *
     * @param list<string> $ads
     */
    private function isAsGood(string $node, Node $like, array $ads): bool
    {
        $stands = $this->after[$node];
        $this->after[$node] = $like;
        $survey = count($ads) > 1 ? new Survey($this->before->with($this->after), $this->plan) : null;
        $found = [];
        foreach ($ads as $ad) {
            $verdict = $survey === null ? $this->prover->verdict($this->pathTo($ad)) : $survey->ad($this->after[$ad] ?? $this->before->nodes[$ad], $this->before->parents[$ad]);
            $found[$ad] = self::names($verdict);
            if (array_diff($found[$ad], $this->faults[$ad]) !== []) {
                $this->after[$node] = $stands;

                return false;
            }
        }
        $this->faults = array_replace($this->faults, $found);

        return true;
    }

    private function pathTo(string $ad): Path
    {
        $nodes = array_map(fn (string $key): Node => $this->after[$key] ?? $this->before->nodes[$key], $this->before->keysTo($ad));

        return $nodes === [] ? throw new \LogicException('an ad has at least itself on its path') : new Path($this->before->dialect, $nodes);
    }

    /** @return list<string> */
    private static function names(?Verdict $verdict): array
    {
        return array_map(static fn (Counterexample $c): string => "{$c->code} {$c->key}", $verdict->counterexamples ?? []);
    }

    /** @return list<string> the ads below some nodes, themselves if they are ads */
    private function adsBelow(string ...$nodes): array
    {
        $ads = [];
        $pending = $nodes;
        while (($key = array_pop($pending)) !== null) {
            if ($this->before->dialect->level($this->before->nodes[$key]->level)?->role === Role::Ad) {
                $ads[] = $key;
            }
            array_push($pending, ...($this->children[$key] ?? []));
        }

        return $ads;
    }

    private function depth(string $node): int
    {
        return $this->before->dialect->level($this->before->nodes[$node]->level)->depth ?? 0;
    }
}
