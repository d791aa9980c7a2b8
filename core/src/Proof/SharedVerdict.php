<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Node;

/** A verdict, the ad that it was found with, and how many ads share it. */
final class SharedVerdict
{
    public int $ads = 0;

    public function __construct(public readonly Verdict $verdict, public readonly Node $first) {}
}
