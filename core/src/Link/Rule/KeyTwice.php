<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;

/** duplicate-key: a page gets a key twice; which one counts is anybody's guess. */
final readonly class KeyTwice implements LinkRule
{
    public function check(Sight $sight): iterable
    {
        foreach ($sight->read as $key => $values) {
            if (count($values) > 1 && ! str_ends_with((string) $key, '[]')) {
                yield new Finding(
                    'duplicate-key',
                    Severity::Warning,
                    "The page gets {$key} ".count($values).' times: '.implode(' and ', $values).'.',
                    key: (string) $key,
                );
            }
        }
    }
}
