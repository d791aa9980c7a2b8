<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Fix;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;
use Vestigon\Core\Plan\Slug;

/** space-in-value: white space is written in two ways, and copied wrongly in a third. */
final readonly class SpaceInValue implements LinkRule
{
    public function check(Sight $sight): iterable
    {
        foreach ($sight->link->pairs as $key => $value) {
            if (preg_match('~\s~u', $value) === 1 && in_array((string) $key, $sight->channels->keys, true)) {
                $slug = Slug::of($value);
                yield new Finding(
                    'space-in-value',
                    Severity::Note,
                    "“{$value}” has white space in it.",
                    key: (string) $key,
                    fix: new Fix("write {$slug}", $slug),
                );
            }
        }
    }
}
