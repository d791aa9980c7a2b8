<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Dialect\Role;

/** The neutral fields. */
final class Fields
{
    /** Fields that only a click gives. */
    public const OF_A_CLICK = [
        'keyword.text',
        'keyword.match',
        'device',
        'network',
        'placement',
        'surface',
        'publisher.name',
        'publisher.id',
        'page.url',
        'product.id',
        'click.id',
        'click.random',
    ];

    /** Fields whose values are a fixed list, the same on all platforms. */
    public const LISTED = [
        'keyword.match' => ['exact', 'phrase', 'broad'],
        'device' => ['desktop', 'mobile', 'tablet'],
        'network' => ['search', 'partner', 'display'],
    ];

    /** The role whose nodes give the field; null for fields of a click. */
    public static function owner(string $field): ?Role
    {
        if (in_array($field, self::OF_A_CLICK, true)) {
            return null;
        }

        return Role::tryFrom(substr($field, 0, strcspn($field, '.')));
    }

    public static function exists(string $field): bool
    {
        return in_array($field, self::OF_A_CLICK, true)
            || (self::owner($field) !== null && strlen($field) > strcspn($field, '.') + 1);
    }
}
