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
 * space-in-value: a space in a fixed value is written as +, %20 or raw by one tool or another, and splits the report
 * (common practice: none).
 */
final readonly class SpaceInValue implements TextRule
{
    public function check(Spot $spot): iterable
    {
        foreach ($spot->parameters() as $pair) {
            if ($pair->value === null || ! $pair->valueFixed) {
                continue;
            }
            $value = Query::decoded($pair->value);
            $without = (string) preg_replace('/\s+/u', '_', trim($value));
            if (preg_match('/\s/u', $value) === 1 && ! PlanWords::says($spot->plan, $pair->key, $value)) {
                yield $spot->finding(
                    'space-in-value',
                    Severity::Warning,
                    "“{$value}” has a space, which arrives in several spellings.",
                    $pair->valueAt,
                    strlen($pair->value),
                    key: $pair->keyFixed ? $pair->key : null,
                    fix: $spot->instead(
                        "write {$without}",
                        $pair->valueAt,
                        strlen($pair->value),
                        Encoding::encode($without),
                    ),
                );
            }
        }
    }
}
