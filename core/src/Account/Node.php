<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Template\Distinct;

/** An element of an account tree, without its place in it. */
final readonly class Node
{
    /**
     * @param string $level level id of the dialect
     * @param string|null $type campaigns only: the campaign type
     * @param array<string, string> $slots by slot kind, as the platform holds them
     * @param array<string, string> $custom custom parameters by name
     * @param array<string, string> $attributes other facts, `width` of an ad is the field `ad.width`
     * @param string|null $publishedName the name it had when it was published, where it differs
     */
    public function __construct(
        public string $level,
        public string $id,
        public string $name,
        public ?string $type = null,
        public array $slots = [],
        public array $custom = [],
        public array $attributes = [],
        public ?string $publishedName = null,
    ) {}

    /** The text of a slot as it counts: trimmed, null if blank. */
    public function slot(SlotKind $kind): ?string
    {
        $text = trim($this->slots[$kind->value] ?? '', " \t\r\n");

        return $text === '' ? null : $text;
    }

    /** All that its slots say, as one text: nodes that say the same have the same. */
    public function said(): string
    {
        $said = '';
        foreach ($this->slots as $slot => $text) {
            $said .= $slot.strlen($text).':'.$text;
        }

        return $said;
    }

    /** The same with its custom parameters; asked of every ad, so said() is not called for it. */
    public function saidInAll(): string
    {
        $said = '';
        foreach ($this->slots as $slot => $text) {
            $said .= $slot.strlen($text).':'.$text;
        }
        foreach ($this->custom as $name => $text) {
            $said .= 'custom'.Distinct::of((string) $name, $text);
        }

        return $said;
    }

    /** @param array<string, string> $facts beside those that are there */
    public function withFacts(array $facts): self
    {
        return $this->with(attributes: $facts + $this->attributes);
    }

    public function withId(string $id): self
    {
        return $this->with(id: $id);
    }

    /** @param bool $freezes does its platform keep sending the name that it was published under? */
    public function named(string $name, bool $freezes): self
    {
        return new self(
            $this->level,
            $this->id,
            $name,
            $this->type,
            $this->slots,
            $this->custom,
            $this->attributes,
            $freezes ? $this->publishedName ?? $this->name : $this->publishedName,
        );
    }

    public function withSlot(SlotKind $kind, ?string $text): self
    {
        $slots = $this->slots;
        unset($slots[$kind->value]);

        return $this->with(slots: $text === null ? $slots : [...$slots, $kind->value => $text]);
    }

    public function withCustom(string $name, ?string $value): self
    {
        $custom = $this->custom;
        unset($custom[$name]);

        return $this->with(custom: $value === null ? $custom : $custom + [$name => $value]);
    }

    /**
     * @param array<string, string>|null $slots
     * @param array<string, string>|null $custom
     * @param array<string, string>|null $attributes
     */
    private function with(
        ?array $slots = null,
        ?array $custom = null,
        ?array $attributes = null,
        ?string $id = null,
    ): self {
        return new self(
            $this->level,
            $id ?? $this->id,
            $this->name,
            $this->type,
            $slots ?? $this->slots,
            $custom ?? $this->custom,
            $attributes ?? $this->attributes,
            $this->publishedName,
        );
    }
}
