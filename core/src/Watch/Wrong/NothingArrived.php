<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** empty-value: an ad is known to have sent it, the plan wants something under the key, and nothing is there. */
final readonly class NothingArrived implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        foreach ($arrived->isOfAds ? $arrived->values : [] as $name => $values) {
            $key = $agreed->key($name);
            if (($values[''] ?? 0) > 0 && $agreed->isRequired($key)) {
                yield new Fault('empty-value', $name, '', $values[''], "{$key} arrives empty, or not at all.");
            }
        }
    }
}
