<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Arrival;

use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\Severity;

/** click-id-lost: the platform's click ID does not arrive as it was sent. */
final readonly class ClickIdLost implements ClickRule
{
    public function breaks(): bool
    {
        return true;
    }

    public function check(Click $click): iterable
    {
        $key = $click->clickIdKey;
        $id = $click->fields['click.id'] ?? '';
        if ($key !== null && $click->lands() && ($click->arrived[$key] ?? []) !== [$id]) {
            yield new Flaw(
                'click-id-lost',
                Severity::Error,
                true,
                "The click ID {$key} does not arrive as it was sent.",
                $key,
                $id,
                $click->arrived[$key] ?? [],
            );
        }
    }
}
