<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Template\Distinct;

/**
 * One text to set: a slot's, a custom parameter's, what a setting of the account is switched to, or an element's name.
 */
final readonly class Write
{
    /**
     * @param string $node the node's key in its account
     * @param string|null $custom a custom parameter's name
     * @param Setting|null $setting of the account; of slot, custom and setting one is given; none: it is the name
     * @param string|null $after null clears
     */
    private function __construct(
        public string $node,
        public ?SlotKind $slot,
        public ?string $custom,
        public ?Setting $setting,
        public ?string $before,
        public ?string $after,
    ) {}

    public static function slot(string $node, SlotKind $slot, ?string $before, ?string $after): self
    {
        return new self($node, $slot, null, null, $before, $after);
    }

    public static function custom(string $node, string $name, ?string $before, ?string $after): self
    {
        return new self($node, null, $name, null, $before, $after);
    }

    /** @param string $node the account's own key */
    public static function setting(string $node, Setting $setting, ?string $before, ?string $after): self
    {
        return new self($node, null, null, $setting, $before, $after);
    }

    public static function name(string $node, string $before, string $after): self
    {
        return new self($node, null, null, null, $before, $after);
    }

    public function isName(): bool
    {
        return $this->slot === null && $this->custom === null && $this->setting === null;
    }

    /** @return list<self> that make the one node of the other, slot by slot */
    public static function between(string $key, Node $before, Node $after): array
    {
        $writes = [];
        foreach (SlotKind::cases() as $kind) {
            [$was, $becomes] = [$before->slots[$kind->value] ?? null, $after->slots[$kind->value] ?? null];
            if ($was !== $becomes) {
                $writes[] = self::slot($key, $kind, $was, $becomes);
            }
        }

        return $writes;
    }

    /** Does it put a narrower text aside? An ad's landing URL is no such text: it is the ad's own. */
    public function overrides(Account $account): bool
    {
        return $this->slot !== null
            && $this->slot !== SlotKind::Landing
            && $account->parents[$this->node] !== null
            && $account->nodes[$this->node]->slot($this->slot) !== null;
    }

    /**
     * @param list<self> $writes in the order to apply
     * @return array<string, Node> the nodes that they change, as they will be
     */
    public static function changed(Account $account, array $writes): array
    {
        $changed = [];
        foreach ($writes as $write) {
            if ($write->setting === null) {
                $changed[$write->node] = $write->on(
                    $changed[$write->node] ?? $account->nodes[$write->node],
                    $account->dialect->namesFreeze,
                );
            }
        }

        return $changed;
    }

    /** @param list<self> $writes in the order to apply */
    public static function applied(Account $account, array $writes): Account
    {
        $settings = $account->settings;
        foreach ($writes as $write) {
            $settings = $write->setting === null ? $settings : $settings->with($write->setting, $write->after);
        }

        return $account->with(self::changed($account, $writes))->switched($settings);
    }

    /** @param bool $freezes does the platform keep sending the names that elements were published under? */
    public function on(Node $node, bool $freezes): Node
    {
        return match (true) {
            $this->slot !== null => $node->withSlot($this->slot, $this->after),
            $this->custom !== null => $node->withCustom($this->custom, $this->after),
            $this->isName() => $node->named((string) $this->after, $freezes),
            default => $node,
        };
    }

    /** The write that puts back what this one found. */
    public function reversed(): self
    {
        return new self($this->node, $this->slot, $this->custom, $this->setting, $this->after, $this->before);
    }

    /** Where it writes. */
    public function place(): string
    {
        return Distinct::of($this->node, $this->slot?->value, $this->custom, $this->setting?->value);
    }

    /** The same write, finding another text there. */
    public function instead(?string $before): self
    {
        return new self($this->node, $this->slot, $this->custom, $this->setting, $before, $this->after);
    }

    /** @return array<string, string|bool|null> as in `vestigon.writes/1` */
    public function toArray(): array
    {
        return match (true) {
            $this->setting !== null => [
                'node' => $this->node,
                'setting' => $this->setting->value,
                'before' => $this->setting->inDocuments($this->before),
                'after' => $this->setting->inDocuments($this->after),
            ],
            default => [
                'node' => $this->node,
                ...$this->custom === null ? ['slot' => $this->slot->value ?? 'name'] : ['custom' => $this->custom],
                'before' => $this->before,
                'after' => $this->after,
            ],
        };
    }
}
