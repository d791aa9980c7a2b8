<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Document\UnusableInput;

/** A plan as a table that people can work on in a spreadsheet: a row a key, a column a platform. */
final class PlanSheet
{
    private const HEADINGS = ['key', 'says', 'or', 'as a name', 'required'];

    /**
     * @param list<string> $platforms ids: a column each, whether the plan says something else there or not
     * @return list<list<string>>
     */
    public static function rows(Plan $plan, array $platforms): array
    {
        $own = array_merge(...array_map(
            static fn (Parameter $p): array => array_map(strval(...), array_keys($p->platforms)),
            $plan->parameters,
        ));
        $platforms = array_values(array_unique([...$platforms, ...$own]));
        $rows = [[...self::HEADINGS, ...$platforms]];
        foreach ($plan->parameters as $p) {
            $rows[] = [
                $p->key,
                PartText::of($p->parts),
                implode(' | ', array_map(PartText::of(...), $p->fallback)),
                $p->shape === Shape::Slug ? 'yes' : '',
                $p->required ? 'yes' : '',
                ...array_map(
                    static fn (string $id): string => ! array_key_exists($id, $p->platforms)
                        ? ''
                        : ($p->platforms[$id] === null
                            ? PlanDifferences::LEFT_OUT
                            : PartText::of($p->platforms[$id])),
                    $platforms,
                ),
            ];
        }

        return $rows;
    }

    /**
     * The parameters of a plan document; what the table has no column for (families, words) is as in the plan before.
     *
     * @param list<list<string|int|float|null>> $rows
     * @param list<array<string, mixed>> $before parameters of the plan as it is
     * @return list<array<string, mixed>>
     *
     * @throws UnusableInput
     */
    public static function parameters(array $rows, array $before): array
    {
        $headings = array_map(static fn (mixed $h): string => trim((string) $h), array_shift($rows) ?? []);
        $at = array_flip($headings);
        foreach (['key', 'says'] as $needed) {
            if (! isset($at[$needed])) {
                throw new UnusableInput("the sheet has no column “{$needed}”");
            }
        }
        $known = array_column($before, null, 'key');
        $parameters = [];
        foreach ($rows as $row) {
            $cell = static fn (string $h): string => isset($at[$h]) ? trim((string) ($row[$at[$h]] ?? '')) : '';
            if ($cell('key') !== '') {
                $platforms = [];
                foreach (array_diff($headings, self::HEADINGS, ['']) as $id) {
                    $platforms[$id] = $cell($id);
                }
                $said = array_filter($platforms, static fn (string $p): bool => $p !== '');
                $parameters[] = self::parameter($cell, $said)
                    + array_intersect_key($known[$cell('key')] ?? [], ['families' => true, 'vocabulary' => true]);
            }
        }

        return $parameters;
    }

    /**
     * @param \Closure(string): string $cell
     * @param array<string, string> $platforms
     * @return array<string, mixed>
     */
    private static function parameter(\Closure $cell, array $platforms): array
    {
        $yes = static fn (string $h): bool => in_array(mb_strtolower($cell($h)), ['yes', 'y', 'x', '1'], true);

        return array_filter(
            [
                'key' => $cell('key'),
                'parts' => PartText::read($cell('says')),
                'fallback' => $cell('or') === '' ? null : array_map(PartText::read(...), explode(' | ', $cell('or'))),
                'shape' => $yes('as a name') ? Shape::Slug->value : null,
                'required' => $yes('required') ?: null,
                'platforms' => array_map(
                    static fn (string $says): array => $says === PlanDifferences::LEFT_OUT
                        ? ['omit' => true]
                        : ['parts' => PartText::read($says)],
                    $platforms,
                ),
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }
}
