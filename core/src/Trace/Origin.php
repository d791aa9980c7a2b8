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

    /** The origin of fixed text beside a value: a suffix where a suffix's token or custom parameter stands first. */
    public function ofText(): self
    {
        return in_array($this->role, [SegmentRole::Token, SegmentRole::Custom], true)
            ? new self(SegmentRole::Suffix, $this->slot, $this->node)
            : $this;
    }

    public function equals(self $other): bool
    {
        return $this->role === $other->role
            && $this->slot === $other->slot
            && $this->node === $other->node
            && $this->token === $other->token
            && $this->field === $other->field;
    }
}
