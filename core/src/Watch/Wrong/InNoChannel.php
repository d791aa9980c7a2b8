<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** unmapped: no rule takes a source and medium; the clicks are in the channel of all that is left. */
final readonly class InNoChannel implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        foreach ($arrived->unmapped as $line => $sessions) {
            yield new Fault(
                'unmapped',
                'channel',
                (string) $line,
                $sessions,
                "“{$line}” is taken by no rule of channels: it is counted as {$agreed->channels->otherwise}.",
            );
        }
    }
}
