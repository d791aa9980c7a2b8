<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Cell;
use Vestigon\Core\Template\Distinct;

/** Something that is wrong or worth knowing: what, how bad, where, why, and what would mend it. */
final readonly class Finding
{
    /**
     * @param string $code as in the list of findings
     * @param string $reason one plain sentence
     * @param SlotKind|null $slot the text it is about; null with $custom null: the node or the whole click
     * @param string|null $custom the custom parameter it is about
     * @param int|null $at where it begins in the text, in bytes; null: all of it
     * @param string|null $key the parameter it is about
     * @param Cell|null $cell where in a plan it stands; its fix is the fixed text to say there
     */
    public function __construct(
        public string $code,
        public Severity $severity,
        public string $reason,
        public ?Node $node = null,
        public ?SlotKind $slot = null,
        public ?string $custom = null,
        public ?int $at = null,
        public int $length = 0,
        public ?string $key = null,
        public ?Fix $fix = null,
        public ?Cell $cell = null,
    ) {}

    public function on(Node $node): self
    {
        return new self(
            $this->code,
            $this->severity,
            $this->reason,
            $node,
            $this->slot,
            $this->custom,
            $this->at,
            $this->length,
            $this->key,
            $this->fix,
            $this->cell,
        );
    }

    /** The same, of a place in a plan. */
    public function in(Cell $cell): self
    {
        return new self(
            $this->code,
            $this->severity,
            $this->reason,
            $this->node,
            $this->slot,
            $this->custom,
            $this->at,
            $this->length,
            $this->key,
            $this->fix,
            $cell,
        );
    }

    /** Is it about a click as a whole, and not about a text? */
    public function isOfClick(): bool
    {
        return $this->slot === null && $this->custom === null;
    }

    /** The same fault at the same place, whichever click or ad shows it. */
    public function id(): string
    {
        return Distinct::of(
            $this->code,
            $this->node?->level,
            $this->node?->id,
            $this->slot?->value,
            $this->custom,
            $this->at === null ? null : (string) $this->at,
            $this->key,
        );
    }

    /** @return array<string, mixed> as in `vestigon.findings/1` */
    public function toArray(): array
    {
        return [
            'code' => $this->code,
            'severity' => $this->severity->value,
            'node' => $this->node?->id,
            'level' => $this->node?->level,
            'slot' => $this->slot?->value,
            'custom' => $this->custom,
            'at' => $this->at,
            'length' => $this->at === null ? null : $this->length,
            'key' => $this->key,
            'reason' => $this->reason,
            'fix' => $this->fix === null ? null : ['says' => $this->fix->says, 'text' => $this->fix->text],
        ];
    }
}
