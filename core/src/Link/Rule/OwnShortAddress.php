<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;

/** own-short-address: a link to a short address of ours could lead in a circle. */
final readonly class OwnShortAddress implements LinkRule
{
    public function check(Sight $sight): iterable
    {
        if (in_array($sight->host(), $sight->shortHosts, true)) {
            yield new Finding(
                'own-short-address',
                Severity::Error,
                "{$sight->host()} is a host of short addresses: give the page that it leads to.",
            );
        }
    }
}
