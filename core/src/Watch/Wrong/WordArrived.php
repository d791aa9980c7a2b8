<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

use Vestigon\Core\Plan\WordStanding;

/** unknown-word and retired-word: a key has a list of words, and what arrives is not on it, or not any more. */
final readonly class WordArrived implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        foreach ($arrived->each() as [$name, $value, $sessions]) {
            $key = $agreed->key($name);
            $judged = $agreed->vocabulary($key)->judged($value);
            if ($judged->standing !== WordStanding::Allowed) {
                $isRetired = $judged->standing === WordStanding::Retired;
                yield new Fault(
                    $isRetired ? 'retired-word' : 'unknown-word',
                    $name,
                    $value,
                    $sessions,
                    "{$key} arrives as “{$value}”, which is "
                        .($isRetired ? 'not used any more' : 'no word of it')
                        .($judged->use === null ? '.' : ": “{$judged->use}” is."),
                );
            }
        }
    }
}
