<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** What an account switches for all of its ads. As a text: `on` or `off`; of automatic tags their mode. */
enum Setting: string
{
    case ClickId = 'clickId';
    case AutoTags = 'autoTags';
    case Delivery = 'delivery';

    /**
     * @return list<string> what we can switch it to on a platform; none: nothing. How clicks are delivered is left to
     *     the platform's own desk.
     */
    public function choices(Dialect $dialect): array
    {
        return match ($this) {
            self::ClickId => $dialect->clickId === null || $dialect->clickId->always ? [] : ['on', 'off'],
            self::AutoTags => array_map(
                static fn (AutoTagMode $m): string => $m->value,
                $dialect->autoTags->modes ?? [],
            ),
            self::Delivery => [],
        };
    }

    /** What it is where nobody has switched it; null: the platform does not have it. */
    public function default(Dialect $dialect): ?string
    {
        return match ($this) {
            self::ClickId => $dialect->clickId === null ? null : ($dialect->clickId->default ? 'on' : 'off'),
            self::AutoTags => $dialect->autoTags?->default->value,
            self::Delivery => ($dialect->delivery[0] ?? null)?->value,
        };
    }

    /** As documents have it: the click ID is true or false. */
    public function inDocuments(?string $text): bool|string|null
    {
        return $this === self::ClickId && $text !== null ? $text === 'on' : $text;
    }

    /** The text of what a document has. */
    public static function text(mixed $value): ?string
    {
        return match (true) {
            is_bool($value) => $value ? 'on' : 'off',
            is_string($value) => $value,
            default => null,
        };
    }
}
