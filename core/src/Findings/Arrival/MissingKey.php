<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Arrival;

use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\Severity;

/** missing-key: a key of the plan that does not arrive. */
final readonly class MissingKey implements ClickRule
{
    public function breaks(): bool
    {
        return true;
    }

    public function check(Click $click): iterable
    {
        if (! $click->lands()) {
            return;
        }
        foreach ($click->expected as $key => $value) {
            if (! isset($click->arrived[$key])) {
                yield new Flaw(
                    'missing-key',
                    Severity::Error,
                    true,
                    "{$key} does not arrive.",
                    (string) $key,
                    $value,
                );
            }
        }
        foreach ($click->unmet as $key => $reason) {
            yield new Flaw(
                'missing-key',
                Severity::Error,
                true,
                "{$key} is required, but {$reason}.",
                (string) $key,
                null,
                $click->arrived[$key] ?? [],
            );
        }
    }
}
