<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** What two plans say differently, key by key and cell by cell. */
final class PlanDifferences
{
    /** Said for a platform on which a key is left out. */
    public const LEFT_OUT = 'left out';

    /** @return list<PlanDifference> in the order of the later plan; keys and variants that are gone at the end */
    public static function between(Plan $before, Plan $after): array
    {
        $differences = self::of(null, self::whole($before), self::whole($after));
        array_push($differences, ...self::ofKeys($before->parameters, $after->parameters));
        [$was, $is] = [array_column($before->variants, null, 'id'), array_column($after->variants, null, 'id')];
        foreach ($is + $was as $id => $variant) {
            $of = [
                // where there is no such variant, the plan itself counts
                ...self::of(null, self::variant($was[$id] ?? null, $before), self::variant($is[$id] ?? null, $after)),
                ...self::ofKeys(
                    $was[$id]->parameters ?? $before->parameters,
                    $is[$id]->parameters ?? $after->parameters,
                ),
            ];
            array_push(
                $differences,
                ...array_map(static fn (PlanDifference $d): PlanDifference => $d->under($variant), $of),
            );
        }

        return $differences;
    }

    /**
     * @param list<Parameter> $before
     * @param list<Parameter> $after
     * @return list<PlanDifference>
     */
    private static function ofKeys(array $before, array $after): array
    {
        $differences = [];
        [$was, $is] = [array_column($before, null, 'key'), array_column($after, null, 'key')];
        foreach (array_keys($is + $was) as $key) {
            array_push(
                $differences,
                ...self::of(
                    (string) $key,
                    isset($was[$key]) ? self::said($was[$key]) : [],
                    isset($is[$key]) ? self::said($is[$key]) : [],
                ),
            );
        }

        return $differences;
    }

    /**
     * @param array<string, string> $before by place
     * @param array<string, string> $after
     * @return list<PlanDifference>
     */
    private static function of(?string $key, array $before, array $after): array
    {
        $differences = [];
        foreach (array_keys($after + $before) as $place) {
            if (($before[$place] ?? null) !== ($after[$place] ?? null)) {
                $differences[] = new PlanDifference(
                    $key,
                    (string) $place,
                    $before[$place] ?? null,
                    $after[$place] ?? null,
                );
            }
        }

        return $differences;
    }

    /** @return array<string, string> */
    private static function whole(Plan $plan): array
    {
        $said = [
            'clickId' => $plan->clickIdRequired ? 'required' : 'optional',
            'order' => self::order($plan->parameters),
        ];
        foreach ($plan->channels as $family => $channel) {
            $said["channel {$family}"] = $channel;
        }

        return $said;
    }

    /** @return array<string, string> */
    private static function said(Parameter $p): array
    {
        $said = [
            'says' => PartText::of($p->parts),
            'shape' => $p->shape->value,
            'required' => $p->required ? 'yes' : 'no',
        ];
        if ($p->families !== null) {
            $said['families'] = implode(', ', $p->families);
        }
        foreach ($p->fallback as $i => $parts) {
            $said['fallback '.($i + 1)] = PartText::of($parts);
        }
        foreach ($p->platforms as $platform => $parts) {
            $said[(string) $platform] = $parts === null ? self::LEFT_OUT : PartText::of($parts);
        }

        return $said;
    }

    /** @return array<string, string> */
    private static function variant(?Variant $variant, Plan $plan): array
    {
        return $variant === null
            ? ['order' => self::order($plan->parameters)]
            : ['for' => $variant->told(), 'order' => self::order($variant->parameters)];
    }

    /** @param list<Parameter> $parameters */
    private static function order(array $parameters): string
    {
        return implode(', ', array_column($parameters, 'key'));
    }
}
