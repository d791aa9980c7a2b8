<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** A key that an ad or campaign will not send as the plan says, and why. */
final readonly class Unmet
{
    /** @param bool $isHarm something that arrives today would be lost by it: never a result, but what tells that a way is none */
    public function __construct(public string $node, public string $key, public string $reason, public bool $isHarm = false) {}
}
