<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;

/** leading-mark: a suffix needs no ? or & in front; the platform sets its own. */
final readonly class LeadingMark implements TextRule
{
    public function check(Spot $spot): iterable
    {
        $length = $spot->slot === SlotKind::Suffix ? strspn($spot->text, '?&') : 0;
        if ($length > 0) {
            $marks = substr($spot->text, 0, $length);
            yield $spot->finding(
                'leading-mark',
                Severity::Note,
                "The suffix begins with {$marks}, which the platform drops.",
                0,
                $length,
                fix: $spot->instead("drop {$marks}", 0, $length, ''),
            );
        }
    }
}
