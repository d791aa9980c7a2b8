<?php

declare(strict_types=1);

namespace Vestigon\Core\Numbers;

use Vestigon\Core\Sheet\DamagedNumber;

/** What a person should know of how a cell was understood. */
final class Note
{
    /**
     * @param string $cell as it is understood
     * @param string|int|float|null $read as it was read
     * @param list<Named> $named what it can be
     * @return string|null a few words; null: there is nothing to say
     */
    public static function of(NamingColumn $column, string $cell, string|int|float|null $read, array $named): ?string
    {
        return match (true) {
            $cell === '' => null,
            $named === [] => $column->by !== By::Name && DamagedNumber::is($cell, $read)
                ? "{$cell} was damaged by a spreadsheet: export it as text"
                : "{$cell} is nothing that is known",
            count($named) > 1 => "{$cell} can be ".self::several($named),
            $named[0]->formerly !== null && $named[0]->name !== $cell => "{$cell} is called {$named[0]->name} now",
            $named[0]->isGone => "{$cell} is gone from the platform",
            default => null,
        };
    }

    /** @param non-empty-list<Named> $named */
    private static function several(array $named): string
    {
        $told = array_map(
            static fn (Named $n): string => $n->path === '' ? $n->name : "{$n->path} › {$n->name}",
            array_slice($named, 0, 3),
        );
        $more = count($named) - count($told);

        return implode(' or ', $told).($more > 0 ? ' or '.$more.' more' : '');
    }
}
