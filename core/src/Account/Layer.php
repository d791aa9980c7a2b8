<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

use Vestigon\Core\Dialect\SlotKind;

/** What one node of a path says for one slot, and whether that counts. */
final readonly class Layer
{
    /** @param Node|null $hiddenBy the narrower node whose text wins */
    public function __construct(
        public Node $node,
        public SlotKind $slot,
        public string $text,
        public LayerState $state,
        public ?Node $hiddenBy = null,
    ) {}
}
