<?php

namespace App\Connectors;

/** A node as the platform has it. */
final readonly class RemoteNode
{
    public const GONE = 'gone';

    /**
     * @param array<string, string> $slots
     * @param array<string, string> $custom
     * @param list<array{text: string, match: string}> $keywords
     * @param string|null $publishedName the name it had when it was published, where the platform freezes names
     * @param array<string, string> $facts such as a banner's width
     * @param string $standing live, paused, review, rejected or gone
     * @param array<string, string> $settings what an account switches for all of its ads
     * @param string|null $parentLevel null: the next wider one
     * @param string|null $said a digest of what sheets say of it; null: it does not come from sheets
     */
    public function __construct(
        public string $id,
        public ?string $parent,
        public string $level,
        public string $name,
        public ?string $type,
        public int $version,
        public array $slots,
        public array $custom,
        public array $keywords,
        public ?string $publishedName = null,
        public array $facts = [],
        public string $standing = 'live',
        public array $settings = [],
        public ?string $parentLevel = null,
        public ?string $said = null,
    ) {}

    /** The text of a slot, custom parameter or setting, null if it is not set; or the name. */
    public function text(string $kind, string $name): ?string
    {
        return match ($kind) {
            'custom' => $this->custom[$name] ?? null,
            'setting' => $this->settings[$name] ?? null,
            'name' => $this->name,
            default => $this->slots[$kind] ?? null,
        };
    }
}
