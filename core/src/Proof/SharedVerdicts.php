<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;

/** All verdicts of a survey, with how many ads share each. */
final class SharedVerdicts
{
    private const MOST_KEPT = 50_000;

    /** How many are kept that have not been added up. */
    public int $kept = 0;

    /** @var list<SharedVerdict> */
    private array $open = [];

    /** @var array<string, int> ads by state */
    private array $states = [];

    /** @var array<string, Broken> by code, key and reason */
    private array $broken = [];

    public function of(Verdict $verdict, Node $ad): SharedVerdict
    {
        $this->kept++;

        return $this->open[] = new SharedVerdict($verdict, $ad);
    }

    /** Adds up. Those handed out before no longer count. */
    public function addUp(): void
    {
        foreach ($this->open as $share) {
            $state = $share->verdict->state->value;
            $this->states[$state] = ($this->states[$state] ?? 0) + $share->ads;
            foreach ($share->verdict->counterexamples as $example) {
                $id = "{$example->code} {$example->key} {$example->reason}";
                if (! isset($this->broken[$id]) && count($this->broken) >= self::MOST_KEPT) {
                    $id = "{$example->code} {$example->key}";
                }
                $broken = $this->broken[$id] ??= new Broken($share->first, $example);
                $broken->ads += $share->ads;
            }
        }
        [$this->open, $this->kept] = [[], 0];
    }

    /** @return array<string, int> ads by state */
    public function states(): array
    {
        return array_filter($this->states);
    }

    /** @return list<Broken> the commonest first */
    public function broken(): array
    {
        $broken = array_values(array_filter($this->broken, static fn (Broken $b): bool => $b->ads > 0));
        usort($broken, static fn (Broken $a, Broken $b): int => $b->ads <=> $a->ads);

        return $broken;
    }
}
