<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;

/** too-long: more characters than the platform takes. */
final readonly class TooLong implements TextRule
{
    public function check(Spot $spot): iterable
    {
        $most =
            $spot->slot === null
                ? $spot->dialect->customParameters?->valueLength
                : $spot->dialect->slot($spot->slot)?->maxLength;
        $length = mb_strlen($spot->text);
        if ($most !== null && $length > $most) {
            yield $spot->finding(
                'too-long',
                Severity::Error,
                "The {$spot->called()} has {$length} characters; {$spot->dialect->title} takes {$most}.",
            );
        }
    }
}
