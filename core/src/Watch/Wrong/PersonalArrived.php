<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

use Vestigon\Core\Findings\Personal;

/** personal-data: an e-mail address or a phone number has arrived; it is not repeated here. */
final readonly class PersonalArrived implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        foreach ($arrived->each() as [$name, $value, $sessions]) {
            $looks = strpbrk($value, '@+0') === false ? [] : Personal::in($value);
            if ($looks !== []) {
                $key = $agreed->key($name);
                yield new Fault('personal-data', $name, $value, $sessions, "{$key} arrives with {$looks[0]} in it.");
            }
        }
    }
}
