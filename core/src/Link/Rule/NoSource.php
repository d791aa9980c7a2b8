<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;

/** no-source: without source and medium a visit counts as if nobody had placed the link. */
final readonly class NoSource implements LinkRule
{
    public function check(Sight $sight): iterable
    {
        $missing = array_filter(['source', 'medium'], static fn (string $name): bool => $sight->first($name) === '');
        if ($missing !== []) {
            yield new Finding(
                'no-source',
                Severity::Warning,
                'There is no '.implode(' and no ', $missing).': reports can’t tell where visits came from.',
                key: $sight->channels->keys[reset($missing)] ?? null,
            );
        }
    }
}
