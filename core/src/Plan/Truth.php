<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Dialect\Dialect;

/** What every click of a lane on a platform must carry, by a plan. */
final readonly class Truth
{
    /**
     * @param array<string, Choice> $choices by key, in the plan's order: the parts that can be given here
     * @param array<string, string> $unmet key → why it can't be given here
     * @param list<string> $required keys of the plan that must arrive
     */
    private function __construct(public array $choices, public array $unmet, public array $required) {}

    /** @param \Closure(string, Shape): bool $shaped does every present value of this field have this shape already? */
    public static function of(Plan $plan, Dialect $dialect, Lane $lane, \Closure $shaped): self
    {
        $chosen = [];
        $unmet = [];
        $required = [];
        foreach ($plan->in($lane->variant)->parameters as $parameter) {
            $missing = null;
            foreach ($parameter->choices($dialect) as $parts) {
                $choice = Choice::of($parts, $parameter->shape, $dialect, $lane->type, $shaped);
                if ($choice instanceof Choice) {
                    $chosen[$parameter->key] = $choice;
                    $missing = null;
                    break;
                }
                $missing ??= $choice;
            }
            if ($missing !== null) {
                $unmet[$parameter->key] =
                    "{$dialect->title} can't give {$missing}"
                    .($lane->type === null ? '' : " on {$lane->type} campaigns")
                    .($parameter->fallback === [] ? '' : ', nor what the plan falls back on');
            }
            if ($parameter->required) {
                $required[] = $parameter->key;
            }
        }

        return new self($chosen, $unmet, $required);
    }

    /**
     * @param list<self> $truths
     * @param list<string> $keys
     * @return array<string, true> the keys of which not all of them say the same
     */
    public static function varying(array $truths, array $keys): array
    {
        $varying = [];
        foreach ($keys as $key) {
            $said = [];
            foreach ($truths as $truth) {
                $choice = $truth->choices[$key] ?? null;
                $said[serialize([$choice?->parts, $choice?->shape])] = true;
            }
            if (count($said) > 1) {
                $varying[$key] = true;
            }
        }

        return $varying;
    }

    /**
     * @param array<string, string> $fields the neutral fields of one click, names as they are now
     * @return array<string, string> key → the value that must arrive
     */
    public function values(array $fields): array
    {
        return array_map(static fn (Choice $choice): string => $choice->value($fields), $this->choices);
    }

    /** @return list<string> the click's fields that the truth depends on */
    public function fields(): array
    {
        return array_values(
            array_unique(
                array_merge(
                    [],
                    ...array_map(static fn (Choice $c): array => $c->fields(), array_values($this->choices)),
                ),
            ),
        );
    }
}
