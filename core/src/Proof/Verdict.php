<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

final readonly class Verdict
{
    /** @param list<Counterexample> $counterexamples one for each key and fault */
    public function __construct(public State $state, public array $counterexamples, public int $clicks) {}

    /** @return array<string, true> what is wrong: the code of each fault, and its key */
    public function faults(): array
    {
        $faults = [];
        foreach ($this->counterexamples as $c) {
            $faults["{$c->code} {$c->key}"] = true;
        }

        return $faults;
    }
}
