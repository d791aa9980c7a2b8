<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

final readonly class Verdict
{
    /** @param list<Counterexample> $counterexamples one for each key and fault */
    public function __construct(public State $state, public array $counterexamples, public int $clicks) {}
}
