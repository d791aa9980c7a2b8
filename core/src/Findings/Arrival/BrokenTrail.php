<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Arrival;

use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\Severity;

/** broken-trail: the click does not reach a landing page. */
final readonly class BrokenTrail implements ClickRule
{
    public function breaks(): bool
    {
        return true;
    }

    public function check(Click $click): iterable
    {
        if ($click->trace->clickUrl === null) {
            yield new Flaw(
                'broken-trail',
                Severity::Error,
                true,
                'The ad has no landing URL, so there is nothing to open.',
            );
        } elseif (! $click->lands()) {
            [$url, $stop] = $click->trace->trail[count($click->trace->trail) - 1] ?? ['', null];
            yield new Flaw(
                'broken-trail',
                Severity::Error,
                true,
                "The click does not reach the landing page: it ends {$stop?->value} at "
                    .Click::quoted($url)
                    .'.',
            );
        }
    }
}
