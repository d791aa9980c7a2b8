<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Cell;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\WordStanding;

/** What a plan says in fixed text. */
final class PlanWords
{
    private const SHOWN = 8;

    /** Does the plan itself want this key to have this value, on any platform? */
    public static function says(?Plan $plan, string $key, string $value): bool
    {
        return in_array($value, self::of($plan, $key), true);
    }

    /**
     * Does the plan make a key of a campaign's name or other facts, or not speak of it at all? Else a value that names
     * a campaign does so by chance.
     */
    public static function mayNameCampaign(?Plan $plan, string $key): bool
    {
        $fields = array_column(array_merge(...array_column(self::cells($plan, $key), 'parts')), 'field');

        return $fields === []
            || array_filter(
                $fields,
                static fn (?string $f): bool => $f !== null && Fields::owner($f) !== Role::Campaign,
            ) === [];
    }

    /** What is to be said of a word for a key; null: nothing. */
    public static function told(Parameter $parameter, string $word): ?Finding
    {
        $judged = $parameter->vocabulary->judged($word);
        $use = $judged->use;

        return match ($judged->standing) {
            WordStanding::Allowed => null,
            WordStanding::Retired => new Finding(
                'retired-value',
                Severity::Warning,
                "“{$word}” is retired for {$parameter->key}".($use === null ? '.' : "; {$use} has taken its place."),
                key: $parameter->key,
                fix: $use === null ? null : new Fix("write {$use}", $use),
            ),
            WordStanding::Unknown => new Finding(
                'not-in-vocabulary',
                Severity::Warning,
                "“{$word}” is not among the words for {$parameter->key} ("
                    .self::listed($parameter->vocabulary->inUse())
                    .')'
                    .($use === null ? '.' : "; {$use} is meant, it seems."),
                key: $parameter->key,
                fix: $use === null ? null : new Fix("write {$use}", $use),
            ),
        };
    }

    /** @param list<string> $words */
    private static function listed(array $words): string
    {
        return implode(', ', array_slice($words, 0, self::SHOWN))
            .(count($words) > self::SHOWN ? ' and '.(count($words) - self::SHOWN).' more' : '');
    }

    /** A word as reports like it (common practice): all lower case, `_` for white space. */
    public static function tidy(string $word): string
    {
        return mb_strtolower((string) preg_replace('/\s+/u', '_', trim($word)));
    }

    /**
     * What is wrong with words that a plan says in fixed text, cell by cell.
     *
     * @param \Closure(Parameter, string): ?Finding $wrong
     * @return iterable<Finding>
     */
    public static function check(Plan $plan, \Closure $wrong): iterable
    {
        foreach ($plan->parameters as $parameter) {
            foreach ($parameter->cells() as $cell) {
                $word = $cell->word();
                $found = $word === null ? null : $wrong($parameter, $word);
                if ($found !== null) {
                    yield $found->in($cell);
                }
            }
        }
    }

    /** @return list<string> the values of a key that hold no field */
    public static function of(?Plan $plan, string $key): array
    {
        $words = array_map(static fn (Cell $cell): ?string => $cell->word(), self::cells($plan, $key));

        return array_values(array_unique(array_filter($words, is_string(...))));
    }

    /** @return list<Cell> all that the plan and its variants say of a key */
    public static function cells(?Plan $plan, string $key): array
    {
        return array_merge(
            ...array_map(static fn (Parameter $p): array => $p->cells(), $plan?->of($key) ?? []),
        );
    }
}
