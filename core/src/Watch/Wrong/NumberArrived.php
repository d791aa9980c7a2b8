<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** number-for-name: the number of an element arrives, which no report can read. */
final readonly class NumberArrived implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        foreach ($arrived->each() as [$name, $value, $sessions]) {
            if ($name === 'campaign' && isset($arrived->numbers[$value])) {
                yield new Fault(
                    'number-for-name',
                    $name,
                    $value,
                    $sessions,
                    "{$agreed->key($name)} arrives as “{$value}”, the number of “{$arrived->numbers[$value]}”: "
                        .'reports show the number.',
                );
            }
        }
    }
}
