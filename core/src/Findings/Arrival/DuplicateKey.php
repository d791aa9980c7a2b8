<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Arrival;

use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\Severity;

/** duplicate-key: a key arrives more than once; which one counts is anybody's guess. */
final readonly class DuplicateKey implements ClickRule
{
    public function breaks(): bool
    {
        return true;
    }

    public function check(Click $click): iterable
    {
        foreach ($click->arrived as $key => $values) {
            if (count($values) < 2 || str_ends_with((string) $key, '[]')) {
                continue;
            }
            $planned = array_key_exists($key, $click->expected);
            $matters = $planned || in_array((string) $key, $click->keys, true);
            yield new Flaw(
                'duplicate-key',
                $matters ? Severity::Error : Severity::Note,
                $planned,
                "{$key} arrives "
                    .count($values)
                    .' times: '
                    .implode(' and ', array_map(Click::quoted(...), $values))
                    .'.',
                (string) $key,
                $click->expected[$key] ?? null,
                $values,
            );
        }
    }
}
