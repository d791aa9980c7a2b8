<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Fix;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;
use Vestigon\Core\Plan\WordStanding;

/** unknown-word and retired-word: a value of a key that has a list of words, and is not on it any more or never was. */
final readonly class UnknownWord implements LinkRule
{
    public function check(Sight $sight): iterable
    {
        foreach ($sight->link->pairs as $key => $value) {
            $judged = $sight->vocabulary((string) $key)->judged($value);
            if ($judged->standing !== WordStanding::Allowed) {
                $isRetired = $judged->standing === WordStanding::Retired;
                yield new Finding(
                    $isRetired ? 'retired-word' : 'unknown-word',
                    Severity::Warning,
                    $isRetired ? "“{$value}” is not used for {$key} any more." : "“{$value}” is no word of {$key}.",
                    key: (string) $key,
                    fix: $judged->use === null ? null : new Fix("write {$judged->use}", $judged->use),
                );
            }
        }
    }
}
