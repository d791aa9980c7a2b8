<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;

/** second-question-mark: a query begins once; a later ? becomes part of the value before it. */
final readonly class SecondQuestionMark implements TextRule
{
    public function check(Spot $spot): iterable
    {
        $seen = $spot->slot === SlotKind::Suffix;
        $behindFragment = false;
        $lead = strspn($spot->text, '?&'); // of a suffix: dropped, another rule's
        foreach ($spot->slot === null ? [] : $spot->pairs as $pair) {
            $behindFragment = $behindFragment || $pair->mark === '#';
            if ($pair->mark !== '?' || $behindFragment) {
                continue;
            }
            if ($seen && $pair->at > $lead) {
                yield $spot->finding(
                    'second-question-mark',
                    Severity::Error,
                    'This ? is the second one: what stands behind it becomes part of the value before it.',
                    $pair->at - 1,
                    1,
                    key: $pair->keyFixed ? $pair->key : null,
                    fix: $spot->instead('write &', $pair->at - 1, 1, '&'),
                );
            }
            $seen = true;
        }
    }
}
