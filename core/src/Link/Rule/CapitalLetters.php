<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Fix;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;

/** not-lowercase: reports count a value with a capital letter apart (common practice: all lower case). */
final readonly class CapitalLetters implements LinkRule
{
    public function check(Sight $sight): iterable
    {
        foreach ($sight->link->pairs as $key => $value) {
            $lower = mb_strtolower($value, 'UTF-8');
            $words = $sight->vocabulary((string) $key);
            if (
                $lower !== $value
                && in_array((string) $key, $sight->channels->keys, true)
                && ($words->isEmpty() || ! $words->has($value))
            ) {
                yield new Finding(
                    'not-lowercase',
                    Severity::Warning,
                    "“{$value}” has capital letters: reports count it apart from “{$lower}”.",
                    key: (string) $key,
                    fix: new Fix("write {$lower}", $lower),
                );
            }
        }
    }
}
