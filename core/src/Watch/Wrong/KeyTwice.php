<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** doubled-key: a key arrives more than once; which of the two counts is another one in every tool. */
final readonly class KeyTwice implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        foreach ($arrived->doubled as $names => $sessions) {
            $keys = array_map($agreed->key(...), explode(',', (string) $names));
            yield new Fault(
                'doubled-key',
                'doubled',
                (string) $names,
                $sessions,
                implode(' and ', $keys).(count($keys) === 1 ? ' arrives' : ' arrive')
                    .' more than once in the same URL: the first counts here, another one elsewhere.',
            );
        }
    }
}
