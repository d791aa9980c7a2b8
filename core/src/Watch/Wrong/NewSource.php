<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** new-source: a source arrives that has not arrived before; somebody may know why, or a text was mistyped. */
final readonly class NewSource implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        foreach ($arrived->new as $value => $sessions) {
            yield new Fault(
                'new-source',
                'source',
                (string) $value,
                $sessions,
                "{$agreed->key('source')} arrives as “{$value}”, which had not arrived before.",
            );
        }
    }
}
