<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Template\Distinct;

/** One text to set: a slot's, or a custom parameter's. */
final readonly class Write
{
    /**
     * @param string $node the node's key in its account
     * @param SlotKind|null $slot null: a custom parameter
     * @param string|null $custom the custom parameter's name
     * @param string|null $after null clears
     */
    private function __construct(public string $node, public ?SlotKind $slot, public ?string $custom, public ?string $before, public ?string $after) {}

    public static function slot(string $node, SlotKind $slot, ?string $before, ?string $after): self
    {
        return new self($node, $slot, null, $before, $after);
    }

    public static function custom(string $node, string $name, ?string $before, ?string $after): self
    {
        return new self($node, null, $name, $before, $after);
    }

    /**
     * @param list<self> $writes in the order to apply
     * @return array<string, Node> the nodes that they change, as they will be
     */
    public static function changed(Account $account, array $writes): array
    {
        $changed = [];
        foreach ($writes as $write) {
            $changed[$write->node] = $write->on($changed[$write->node] ?? $account->nodes[$write->node]);
        }

        return $changed;
    }

    public function on(Node $node): Node
    {
        return $this->slot === null ? $node->withCustom((string) $this->custom, $this->after) : $node->withSlot($this->slot, $this->after);
    }

    /** The write that puts back what this one found. */
    public function reversed(): self
    {
        return new self($this->node, $this->slot, $this->custom, $this->after, $this->before);
    }

    /** Where it writes. */
    public function place(): string
    {
        return Distinct::of($this->node, $this->slot?->value, $this->custom);
    }

    /** The same write, finding another text there. */
    public function instead(?string $before): self
    {
        return new self($this->node, $this->slot, $this->custom, $before, $this->after);
    }

    /** @return array<string, string|null> as in `vestigon.writes/1` */
    public function toArray(): array
    {
        return ['node' => $this->node, ...($this->slot === null ? ['custom' => $this->custom] : ['slot' => $this->slot->value]), 'before' => $this->before, 'after' => $this->after];
    }
}
