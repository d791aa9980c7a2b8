<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** lost-between-own-hosts: a visitor goes on from one own host to another, and arrives there as a stranger. */
final readonly class LostBetween implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        foreach ($arrived->lost as $host => $sessions) {
            yield new Fault(
                'lost-between-own-hosts',
                'lost',
                (string) $host,
                $sessions,
                "Who goes on from {$host} to another host of one’s own arrives there as a stranger: what follows "
                    .'counts for no click.',
            );
        }
    }
}
