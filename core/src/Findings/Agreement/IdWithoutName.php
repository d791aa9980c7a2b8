<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Agreement;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PlanRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Plan\Part;
use Vestigon\Core\Plan\Plan;

/** id-without-name: reports will show a number where a name is wanted, since no key carries the name. */
final readonly class IdWithoutName implements PlanRule
{
    public function check(Plan $plan): iterable
    {
        $fields = [];
        foreach ($plan->parameters as $parameter) {
            foreach ($parameter->cells() as $cell) {
                array_push($fields, ...array_map(static fn (Part $p): string => (string) $p->field, $cell->parts));
            }
        }
        foreach ($plan->parameters as $parameter) {
            foreach ($parameter->parts as $part) {
                $role =
                    $part->field === null || ! str_ends_with($part->field, '.id')
                        ? null
                        : substr($part->field, 0, -3);
                if (
                    in_array($role, ['campaign', 'group', 'ad', 'folder'], true)
                    && ! in_array("{$role}.name", $fields, true)
                ) {
                    yield new Finding(
                        'id-without-name',
                        Severity::Note,
                        "{$parameter->key} carries {$role}.id and no key carries {$role}.name: reports show "
                            .'numbers only.',
                        key: $parameter->key,
                        cell: $parameter->cells()[0],
                    );
                }
            }
        }
    }
}
