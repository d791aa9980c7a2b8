<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Plan\Part;
use Vestigon\Core\Plan\Plan;

/** What a plan says in fixed text. */
final class PlanWords
{
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
        foreach ($plan->parameters ?? [] as $parameter) {
            if ($parameter->key === $key) {
                $fields = array_column(array_merge(...$parameter->everyChoice()), 'field');

                return $fields === []
                    || array_filter(
                        $fields,
                        static fn (?string $f): bool => $f !== null && Fields::owner($f) !== Role::Campaign,
                    ) === [];
            }
        }

        return true;
    }

    /** What is to be said of a word for a key; null: nothing. */
    public static function told(Parameter $parameter, string $word): ?Finding
    {
        $words = $parameter->vocabulary;
        if (! $words->knows($word)) {
            $meant = Guess::nearest($word, $words->inUse());

            return new Finding(
                'not-in-vocabulary',
                Severity::Warning,
                "“{$word}” is not among the words for {$parameter->key} ("
                    .implode(', ', $words->inUse())
                    .')'
                    .($meant === null ? '.' : "; {$meant} is meant, it seems."),
                key: $parameter->key,
            );
        }
        $next = $words->successor($word);

        return $words->isRetired($word)
            ? new Finding(
                'retired-value',
                Severity::Warning,
                "“{$word}” is retired for {$parameter->key}"
                    .($next === null ? '.' : "; {$next} has taken its place."),
                key: $parameter->key,
            )
            : null;
    }

    /** @return list<string> the values of a key that hold no field */
    public static function of(?Plan $plan, string $key): array
    {
        $words = [];
        foreach ($plan->parameters ?? [] as $parameter) {
            foreach ($parameter->key === $key ? $parameter->everyChoice() : [] as $parts) {
                if (array_filter($parts, static fn (Part $p): bool => $p->field !== null) === []) {
                    $words[] = implode('', array_map(static fn (Part $p): string => (string) $p->text, $parts));
                }
            }
        }

        return array_values(array_unique($words));
    }
}
