<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/**
 * Suggests what a table's columns mean, from its headings and first rows: what cells look like says the most, then what
 * headings usually mean, then numbers that stand beside a name. Nothing is settled by it: a person confirms.
 */
final class Suggestion
{
    /** So many rows are looked at. */
    public const ROWS = 200;

    private const WORDS = 12;

    private readonly TradeWords $words;

    private readonly Cells $cells;

    private readonly CellLooks $looks;

    public function __construct(private readonly Dialect $dialect)
    {
        $this->words = new TradeWords($dialect);
        $this->cells = new Cells();
        $this->looks = new CellLooks($dialect);
    }

    /**
     * @param list<list<string|int|float|null>> $rows the table's first rows
     * @param int|null $at the place of the heading row, where a person has said so; null: it is found
     * @return SuggestedTable|null null: it has no headings
     */
    public function of(string $title, array $rows, ?int $at = null): ?SuggestedTable
    {
        $at ??= HeadingRow::at($rows, null);
        if ($at === null || ! isset($rows[$at])) {
            return null;
        }
        $columns = [];
        $kind = null;
        $body = array_slice($rows, $at + 1, self::ROWS);
        foreach ($rows[$at] as $place => $heading) {
            $heading = trim((string) $heading);
            if ($heading === '') {
                continue;
            }
            $cells = array_map(fn (array $row): string => $this->cells->text($row[$place] ?? null), $body);
            $filled = array_values(array_filter($cells, static fn (string $c): bool => $c !== ''));
            $kind ??= $this->rowKind($heading, $filled);
            if ($kind?->heading !== $heading) {
                $columns[] = $this->written($heading, $filled, $kind) ?? $this->column($heading, $filled);
            }
        }

        return new SuggestedTable($title, $at, ...$this->levelled($this->numbered($columns, $body, $rows[$at]), $kind));
    }

    /**
     * A heading that is what a map would say, such as `campaign.id`, `slot.template` or, where rows say their levels,
     * `id`.
     *
     * @param list<string> $filled
     */
    private function written(string $heading, array $filled, ?RowKind $kind): ?SuggestedColumn
    {
        if (! str_contains($heading, '.') && ($kind === null || Says::tryFrom($heading)?->isOwn() !== true)) {
            return null;
        }
        try {
            $means = Meaning::read(new Cursor($heading), $this->dialect);
        } catch (UnusableInput) {
            return null;
        }
        [$values, $asked] = $this->values($means->says, $filled);

        return new SuggestedColumn(
            $heading,
            $means,
            $asked === [] ? Certainty::Sure : Certainty::Open,
            'That is how a map writes it.',
            $values,
            $asked,
        );
    }

    /** @param list<string> $filled */
    private function column(string $heading, array $filled): SuggestedColumn
    {
        [$look, $why] = $this->looks->slot($filled);
        $word = $this->words->meaning($heading);
        $isFigure = in_array($word, Meaning::FIGURES, true);
        // a list of custom parameters looks like a suffix
        if ($look !== null && ! $isFigure && $word !== 'custom') {
            return new SuggestedColumn(
                $heading,
                new Meaning(Says::Slot, name: $look),
                $word === "slot.{$look}" ? Certainty::Sure : Certainty::Likely,
                $why,
            );
        }
        if ($word === null || ($filled !== [] && str_starts_with($word, 'slot.') && $this->isNumeric($filled))) {
            return new SuggestedColumn(
                $heading,
                new Meaning(Says::Nothing),
                Certainty::Open,
                'Nothing tells what it means.',
            );
        }
        $means = $this->meaning($word);
        [$values, $asked] = $this->values($means->says, $filled);

        return new SuggestedColumn(
            $heading,
            $means,
            $asked === [] ? Certainty::Likely : Certainty::Open,
            "“{$heading}” usually means that.",
            $values,
            $asked,
            $means->says === Says::CustomAll ? $this->looks->form($filled) : new CustomForm(),
        );
    }

    private function meaning(string $word): Meaning
    {
        [$of, $what] = explode('.', $word, 2) + [1 => ''];
        $says = Says::tryFrom($what);

        return match (true) {
            $of === 'slot' => new Meaning(Says::Slot, name: $what),
            $word === 'custom' => new Meaning(Says::CustomAll),
            $word === 'standing', $what === 'standing' => new Meaning(Says::Standing, $what === '' ? null : $of),
            Says::tryFrom($word) !== null => new Meaning(Says::from($word)),
            $says !== null => new Meaning($says, $of),
            default => new Meaning(Says::Figure, name: $word),
        };
    }

    /**
     * @param list<string> $filled
     * @return array{array<string, string>|null, list<string>} what its words say, and those that are not known
     */
    private function values(Says $says, array $filled): array
    {
        if (! in_array($says, [Says::Type, Says::Standing, Says::KeywordMatch], true)) {
            return [null, []];
        }
        $values = $asked = [];
        foreach (array_slice(array_unique($filled), 0, self::WORDS) as $cell) {
            $said = $this->words->said($says, $cell);
            if ($said === null) {
                $asked[] = $cell;
            } else {
                $values[$cell] = $said;
            }
        }

        return [$values === [] ? null : $values, $asked];
    }

    /**
     * Numbers that are all different, beside a name that has none: they are its ids.
     *
     * @param list<SuggestedColumn> $columns
     * @param list<list<string|int|float|null>> $body
     * @param list<string|int|float|null> $headings
     * @return list<SuggestedColumn>
     */
    private function numbered(array $columns, array $body, array $headings): array
    {
        $headings = array_map(static fn (mixed $h): string => trim((string) $h), $headings);
        $places = array_flip(array_reverse($headings, true));
        $has = static fn (Says $says, ?string $level): bool => array_filter(
            $columns,
            static fn (SuggestedColumn $c): bool => $c->means->says === $says && $c->means->level === $level,
        ) !== [];
        foreach ($columns as $i => $column) {
            $beside = [$columns[$i + 1] ?? null, $columns[$i - 1] ?? null];
            foreach ($column->certainty === Certainty::Open && $column->asked === [] ? $beside : [] as $other) {
                if ($other?->means->says !== Says::Name || $has(Says::Id, $other->means->level)) {
                    continue;
                }
                $place = $places[$column->heading];
                $cells = array_map(fn (array $row): string => $this->cells->text($row[$place] ?? null), $body);
                $filled = array_filter($cells, static fn (string $c): bool => $c !== '');
                if ($filled !== [] && $filled === array_unique($filled) && $this->isNumeric($filled)) {
                    $columns[$i] = new SuggestedColumn(
                        $column->heading,
                        new Meaning(Says::Id, $other->means->level),
                        Certainty::Likely,
                        "Numbers that are all different, beside “{$other->heading}”.",
                    );
                }
            }
        }

        return $columns;
    }

    /**
     * Rows are of the narrowest level that has a column; its columns are the row's own.
     *
     * @param list<SuggestedColumn> $columns
     * @return array{string|null, RowKind|null, list<SuggestedColumn>}
     */
    private function levelled(array $columns, ?RowKind $kind): array
    {
        $own = null;
        foreach ($kind === null ? $this->dialect->levels : [] as $level) {
            foreach ($columns as $column) {
                if ($column->means->says->isOfAnyLevel() && $column->means->level === $level->id) {
                    $own = $level->id;
                }
            }
        }

        return [
            $own,
            $kind,
            array_map(static function (SuggestedColumn $column) use ($own): SuggestedColumn {
                $means = $column->means;
                $isOther = $means->says === Says::Standing && $means->level !== null && $means->level !== $own;

                return match (true) {
                    $isOther => $column->as(new Meaning(Says::Nothing)), // a wider element's, said on its own rows
                    $means->level === $own || $means->says === Says::Standing => $column->as(
                        new Meaning($means->says, null, $means->name),
                    ),
                    default => $column,
                };
            }, $columns),
        ];
    }

    /** @param list<string> $filled */
    private function rowKind(string $heading, array $filled): ?RowKind
    {
        $levels = [];
        foreach (array_unique($filled) as $cell) {
            $level = $this->words->level($cell);
            if ($level === null) {
                return null;
            }
            $levels[$cell] = $level;
        }

        return count(array_unique($levels)) > 1 ? new RowKind($heading, $levels) : null;
    }

    /** @param array<string> $filled */
    private function isNumeric(array $filled): bool
    {
        return array_filter($filled, static fn (string $c): bool => ! ctype_digit($c)) === [];
    }
}
