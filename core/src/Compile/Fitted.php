<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** A text with as much of the plan as there is room for, and what was left out. */
final readonly class Fitted
{
    /** @param list<LeftOut> $out */
    public function __construct(public string $text, public array $out) {}
}
