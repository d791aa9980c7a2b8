<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\SlotKind;

/** Where a stretch of a click URL comes from. */
final readonly class Origin
{
    /** @param Node|null $node null for what the platform itself adds */
    public function __construct(
        public SegmentRole $role,
        public ?SlotKind $slot = null,
        public ?Node $node = null,
        public ?string $token = null,
        public ?string $field = null,
    ) {}
}
