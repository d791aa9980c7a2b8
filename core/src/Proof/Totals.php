<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;

/** How many ads keep the plan, and each way in which it is broken. */
final class Totals
{
    private const MOST_KEPT = 50_000;

    /** @var array<string, int> ads by state */
    private array $states = [];

    /** @var array<string, Broken> by code, key and reason */
    private array $broken = [];

    public function add(AlikeAds $alike): void
    {
        if ($alike->verdict === null || $alike->ads === 0) {
            return;
        }
        $this->state($alike->verdict->state->value, $alike->ads);
        foreach ($alike->verdict->counterexamples as $example) {
            $this->broken($alike->first, $example, $alike->ads);
        }
    }

    /** Adds what was added up elsewhere. */
    public function take(self $totals): void
    {
        foreach ($totals->states as $state => $ads) {
            $this->state($state, $ads);
        }
        foreach ($totals->broken as $broken) {
            $this->broken($broken->ad, $broken->example, $broken->ads);
        }
    }

    private function state(string $state, int $ads): void
    {
        $this->states[$state] = ($this->states[$state] ?? 0) + $ads;
    }

    private function broken(Node $ad, Counterexample $example, int $ads): void
    {
        $id = "{$example->code} {$example->key} {$example->reason}";
        if (! isset($this->broken[$id]) && count($this->broken) >= self::MOST_KEPT) {
            $id = "{$example->code} {$example->key}";
        }
        $broken = $this->broken[$id] ??= new Broken($ad, $example);
        $broken->ads += $ads;
    }

    /** @return array<string, int> ads by state */
    public function states(): array
    {
        return $this->states;
    }

    /** @return list<Broken> the commonest first */
    public function all(): array
    {
        $broken = array_values($this->broken);
        usort($broken, static fn (Broken $a, Broken $b): int => $b->ads <=> $a->ads);

        return $broken;
    }
}
