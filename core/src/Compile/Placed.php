<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Dialect\SlotKind;

/** Where a key is carried: in which slot, and from which depth of the tree on. */
final readonly class Placed
{
    public function __construct(public SlotKind $slot, public int $depth) {}
}
