<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** old-name: the name arrives that an element had before; its past and what comes now are two lines of a report. */
final readonly class OldName implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        foreach ($arrived->each() as [$name, $value, $sessions]) {
            $now = $arrived->former[$value] ?? null;
            if (in_array($name, ['campaign', 'content'], true) && $now !== null) {
                yield new Fault(
                    'old-name',
                    $name,
                    $value,
                    $sessions,
                    "{$agreed->key($name)} arrives as “{$value}”, by a name that “{$now}” no longer has: reports tell "
                        .'them apart.',
                );
            }
        }
    }
}
