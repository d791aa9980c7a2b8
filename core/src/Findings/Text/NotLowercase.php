<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Findings\PlanWords;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;
use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Query;

/**
 * not-lowercase: values are case sensitive, and one capital letter splits a line of the report in two (common practice:
 * all lower case).
 */
final readonly class NotLowercase implements TextRule
{
    public function check(Spot $spot): iterable
    {
        foreach ($spot->parameters() as $pair) {
            if ($pair->value === null || ! $pair->valueFixed || ! in_array($pair->key, $spot->keys, true)) {
                continue;
            }
            $value = Query::decoded($pair->value);
            $lower = mb_strtolower($value);
            if ($value !== $lower && ! PlanWords::says($spot->plan, $pair->key, $value)) {
                yield $spot->finding(
                    'not-lowercase',
                    Severity::Warning,
                    "“{$value}” has capital letters: reports count it apart from “{$lower}”.",
                    $pair->valueAt,
                    strlen($pair->value),
                    key: $pair->key,
                    fix: $spot->instead(
                        "write {$lower}",
                        $pair->valueAt,
                        strlen($pair->value),
                        Encoding::encode($lower),
                    ),
                );
            }
        }
    }
}
