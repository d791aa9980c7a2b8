<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** What a text has no room for. */
final readonly class LeftOut
{
    /** @param string $key of the plan; empty: all of the text */
    public function __construct(public string $key, public string $reason) {}
}
