<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;

/** unmapped: no channel rule takes it, so that it is counted with all that nobody thought of. */
final readonly class InNoChannel implements LinkRule
{
    public function check(Sight $sight): iterable
    {
        if ($sight->counted->rule === null && $sight->first('source').$sight->first('medium') !== '') {
            yield new Finding(
                'unmapped',
                Severity::Warning,
                "It is counted in {$sight->counted->channel}: {$sight->counted->why}.",
            );
        }
    }
}
