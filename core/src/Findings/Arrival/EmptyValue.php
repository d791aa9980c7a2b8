<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Arrival;

use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\Severity;

/** empty-value: a key that reports are made of arrives with nothing in it. */
final readonly class EmptyValue implements ClickRule
{
    public function breaks(): bool
    {
        return false;
    }

    public function check(Click $click): iterable
    {
        foreach ($click->keys as $key) {
            if (in_array('', $click->arrived[$key] ?? [], true) && ($click->expected[$key] ?? null) !== '') {
                yield new Flaw(
                    'empty-value',
                    Severity::Warning,
                    false,
                    "{$key} arrives empty.",
                    $key,
                    $click->expected[$key] ?? null,
                    [''],
                );
            }
        }
    }
}
