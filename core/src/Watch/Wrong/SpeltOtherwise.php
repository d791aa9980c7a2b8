<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

use Vestigon\Core\Findings\Spelling;

/** split: two values differ by capitals and what stands between their parts only; the rarer one is told. */
final readonly class SpeltOtherwise implements ArrivedRule
{
    public function check(Arrived $arrived, Agreed $agreed): iterable
    {
        $alike = [];
        foreach ($arrived->each() as [$name, $value, $sessions]) {
            $alike[$name][Spelling::bare($value)][$value] = $sessions;
        }
        foreach ($alike as $name => $groups) {
            foreach ($groups as $spellings) {
                arsort($spellings);
                $usual = (string) array_key_first($spellings);
                foreach (array_slice($spellings, 1, null, true) as $value => $sessions) {
                    yield new Fault(
                        'split',
                        $name,
                        (string) $value,
                        $sessions,
                        "{$agreed->key($name)} arrives as “{$value}” and as “{$usual}”: reports count them apart.",
                    );
                }
            }
        }
    }
}
