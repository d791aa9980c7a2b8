<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

/** What a survey has found of some of an account's ads. It can be serialized: several processes share an account so. */
final readonly class Gathered
{
    /** @param Noted|null $noted null: no findings were wanted */
    public function __construct(public Totals $totals, public ?Noted $noted) {}
}
