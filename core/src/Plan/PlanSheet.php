<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Document\UnusableInput;

/** A plan as a table that people can work on in a spreadsheet: a row a key, a column a platform. */
final class PlanSheet
{
    private const HEADINGS = ['key', 'says', 'or', 'as a name', 'required', self::UNDER];

    /** Whose row it is, where the plan has variants: the title of one; empty: the plan's own. */
    private const UNDER = 'under';

    /**
     * @param list<string> $platforms ids: a column each, whether the plan says something else there or not
     * @return list<list<string>>
     */
    public static function rows(Plan $plan, array $platforms): array
    {
        $of = ['' => $plan->parameters] + array_column($plan->variants, 'parameters', 'title');
        $own = array_merge(...array_map(
            static fn (Parameter $p): array => array_map(strval(...), array_keys($p->platforms)),
            array_merge(...array_values($of)),
        ));
        $platforms = array_values(array_unique([...$platforms, ...$own]));
        $varies = $plan->variants !== [];
        $rows = [[...$varies ? self::HEADINGS : array_slice(self::HEADINGS, 0, -1), ...$platforms]];
        foreach ($of as $under => $parameters) {
            foreach ($parameters as $p) {
                $rows[] = self::row($p, $varies ? [(string) $under] : [], $platforms);
            }
        }

        return $rows;
    }

    /**
     * @param list<string> $under
     * @param list<string> $platforms
     * @return list<string>
     */
    private static function row(Parameter $p, array $under, array $platforms): array
    {
        return [
            $p->key,
            PartText::of($p->parts),
            implode(' | ', array_map(PartText::of(...), $p->fallback)),
            $p->shape === Shape::Slug ? 'yes' : '',
            $p->required ? 'yes' : '',
            ...$under,
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

    /**
     * A plan document that says what a table does; what the table has no column for (families, words, for whom variants
     * count) is as in the plan before.
     *
     * @param list<list<string|int|float|null>> $rows
     * @param array{
     *     parameters: list<array<string, mixed>>,
     *     variants?: list<array{title: string, parameters: list<array<string, mixed>>, ...}>,
     *     ...
     * } $before the plan as it is
     * @return array<mixed>
     *
     * @throws UnusableInput
     */
    public static function document(array $rows, array $before): array
    {
        $headings = array_map(static fn (mixed $h): string => trim((string) $h), array_shift($rows) ?? []);
        foreach (['key', 'says'] as $needed) {
            if (! in_array($needed, $headings, true)) {
                throw new UnusableInput("the sheet has no column “{$needed}”");
            }
        }
        $of = ['' => []];
        foreach ($rows as $row) {
            $cells = [];
            foreach ($headings as $i => $heading) {
                $cells[$heading] ??= trim((string) ($row[$i] ?? ''));
            }
            if ($cells['key'] !== '') {
                $of[$cells[self::UNDER] ?? ''][] = $cells;
            }
        }
        $before['parameters'] = self::parameters($of[''], $before['parameters']);
        foreach ($before['variants'] ?? [] as $i => $variant) {
            if (isset($of[$variant['title']])) {
                $before['variants'][$i]['parameters'] = self::parameters(
                    $of[$variant['title']],
                    $variant['parameters'],
                );
                unset($of[$variant['title']]);
            }
        }
        unset($of['']);
        foreach (array_keys($of) as $title) {
            throw new UnusableInput("the plan has no variant “{$title}”: say there first for whom it counts");
        }

        return $before;
    }

    /**
     * @param list<array<string, string>> $rows cells by heading
     * @param list<array<string, mixed>> $before
     * @return list<array<string, mixed>>
     */
    private static function parameters(array $rows, array $before): array
    {
        $known = array_column($before, null, 'key');

        return array_map(
            static fn (array $cells): array => self::parameter($cells)
                + array_intersect_key($known[$cells['key']] ?? [], ['families' => true, 'vocabulary' => true]),
            $rows,
        );
    }

    /**
     * @param array<string, string> $cells
     * @return array<string, mixed>
     */
    private static function parameter(array $cells): array
    {
        $cell = static fn (string $heading): string => $cells[$heading] ?? '';
        $yes = static fn (string $h): bool => in_array(mb_strtolower($cell($h)), ['yes', 'y', 'x', '1'], true);
        $platforms = array_filter(
            array_diff_key($cells, array_flip([...self::HEADINGS, ''])),
            static fn (string $says): bool => $says !== '',
        );

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
