<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;

/** click-id-off: the platform could add its click ID, but the account has it switched off. */
final readonly class ClickIdOff implements PathRule
{
    public function check(Standing $standing): iterable
    {
        $clickId = $standing->path->dialect->clickId;
        if ($clickId !== null && ! $clickId->isOn($standing->settings->clickId)) {
            $required = $standing->plan?->clickIdRequired === true;
            yield new Finding(
                'click-id-off',
                $required ? Severity::Error : Severity::Warning,
                "{$standing->path->dialect->title}'s click ID {$clickId->parameter} is switched off for the account"
                    .($required ? '; the plan requires it.' : '.'),
                $standing->path->nodes[0],
                key: $clickId->parameter,
            );
        }
    }
}
