<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Means;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Plan\Part;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Shape;

/**
 * Finds where a small give in the plan saves much, by compiling with it: a value that the platform could fill in by
 * itself is written out on many elements for the sake of its shape, and goes stale there when they are renamed.
 *
 * Of many ads, what does not save much on a sample is not tried on all.
 */
final readonly class Advisor
{
    /** Saving fewer writes than this is not worth a word. */
    private const LEAST_SAVED = 2;

    private function __construct(private Task $task, private Compiled $found) {}

    /** @return list<Advice> for each key at most one: the smallest give that saves much */
    public static function advice(
        Account $account,
        Plan $plan,
        Compiled $found,
        Policy $policy = new Policy(),
    ): array {
        $task = Task::of($account, $plan, $policy, new Progress());
        $advisor = new self($task, $found);
        $sample = Sample::of($account, $plan);
        $onSample =
            $sample === $account
                ? null
                : new self(($some = $task->on($task->scope->for($sample))), Rounds::of($some));
        $advice = [];
        foreach ($plan->parameters as $parameter) {
            foreach (Give::cases() as $give) {
                $given = $advisor->given($parameter, $give);
                if (
                    $given === null
                    || ($onSample !== null && $onSample->saving($parameter, $give, $given) === null)
                ) {
                    continue;
                }
                $saving = $advisor->saving($parameter, $give, $given);
                if ($saving !== null) {
                    $advice[] = $saving;
                    break;
                }
            }
        }

        return $advice;
    }

    private function saving(Parameter $parameter, Give $give, Parameter $given): ?Advice
    {
        $now = count($this->found->writes);
        $switches = array_filter($this->found->writes, static fn (Write $w): bool => $w->setting !== null);
        $scope = $this->task->scope->switched(
            Write::applied($this->task->account, array_values($switches))->settings,
        );
        $then = Rounds::of($this->task->on($scope)->planned($this->task->plan->with($given)));
        $then = $then->after(array_values($switches), $then->was);
        $saves =
            2 * count($then->writes) <= $now
            && $now - count($then->writes) >= self::LEAST_SAVED
            && $then->lack() <= $this->found->lack();
        $nodes = static fn (Compiled $c): array => array_map(static fn (Write $w): string => $w->node, $c->writes);

        return $saves
            ? new Advice(
                $parameter->key,
                $give,
                $now,
                count($then->writes),
                array_values(array_unique(array_diff($nodes($this->found), $nodes($then)))),
            )
            : null;
    }

    /** The parameter with the give, if there is anything in it to give. */
    private function given(Parameter $parameter, Give $give): ?Parameter
    {
        $dialect = $this->task->account->dialect;
        $choices = $parameter->choices($dialect);
        $isWritten = static fn (Part $p): bool => $p->field !== null
            && (Means::for($p->field, $parameter->shape, false, $dialect, null)->token ?? null) === null;
        if ($choices === [] || array_filter($choices[0], $isWritten) === []) {
            return null; // tokens give it: nothing can be saved
        }

        return match ($give) {
            Give::AsIs => $parameter->shape === Shape::AsIs ? null : $parameter->shaped(Shape::AsIs),
            Give::Fallback => $parameter->fallback === []
                ? null
                : $parameter->on($dialect->id, $parameter->fallback[0]),
            Give::Optional => $parameter->required ? null : $parameter->on($dialect->id, null),
        };
    }
}
