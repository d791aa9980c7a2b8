<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Findings\Severity;

/** Reads the rows of one table, one at a time: what each says, and what is wrong with it. */
final class RowReader
{
    private readonly Cells $cells;

    private readonly Totals $totals;

    private readonly Identity $identity;

    private readonly FigureCell $figure;

    /** @var list<Problem> of the row at hand */
    private array $problems = [];

    private int $row = 0;

    /** @param string $account the account's id */
    public function __construct(
        private readonly Dialect $dialect,
        private readonly SheetMap $map,
        private readonly Layout $layout,
        private readonly int $table,
        string $account,
    ) {
        $this->cells = new Cells($map->blank);
        $this->totals = new Totals($map->totals);
        $this->figure = new FigureCell($map->decimal);
        $this->identity = new Identity($dialect, $layout->map, $account);
    }

    /**
     * @param list<string|int|float|null> $raw
     * @param int $row as a spreadsheet counts it, from 1
     */
    public function read(array $raw, int $row): Row
    {
        $this->problems = [];
        $this->row = $row;
        $cells = array_map($this->cells->text(...), $raw);
        if (implode('', $cells) === '') {
            return new Row(RowSort::Empty);
        }
        if ($this->layout->isRepeatedIn($raw)) {
            return new Row(RowSort::Headings);
        }
        $kind = $this->layout->map->rowKind;
        $kindCell = $cells[$this->layout->kindAt ?? -1] ?? '';
        $level = $kind === null ? $this->layout->map->level : $kind->level($kindCell);
        if ($this->totals->is($cells, $this->layout, $level)) {
            return new Row(RowSort::Total);
        }
        if ($kind !== null && $level === null) {
            $this->wrong(
                'unknown-word',
                $kind->heading,
                $kindCell === ''
                    ? 'It is not said what this row is.'
                    : "The map does not know what a row of “{$kindCell}” is.",
            );

            return new Row(RowSort::Element, null, $this->problems);
        }
        $said = $this->said($cells, $raw, $level);

        return new Row(RowSort::Element, $said, $this->problems);
    }

    /**
     * @param list<string> $cells
     * @param list<string|int|float|null> $raw
     * @return Said|null null: it can't be told what the row is about
     */
    private function said(array $cells, array $raw, ?string $level): ?Said
    {
        $names = new Names();
        $facts = ['slots' => [], 'custom' => [], 'attributes' => [], 'settings' => []];
        $keyword = $match = '';
        $isDamaged = false;
        foreach ($this->layout->columns as $place => $column) {
            $cell = $this->word($column, $cells[$place] ?? '');
            $means = $column->means;
            if ($means->says === Says::Id && DamagedNumber::is($cell, $raw[$place] ?? null)) {
                $isDamaged = true;
                $this->wrong(
                    'damaged-number',
                    $column->heading,
                    "“{$cell}” is what a spreadsheet makes of a long number; its last digits may be lost. Export the "
                        .'file anew and bring it in without opening it in a spreadsheet, or make the column text.',
                );
            }
            match ($means->says) {
                Says::Id, Says::Name, Says::Type => $names->add($means, $cell),
                Says::Standing => $facts['serving'] = Serving::tryFrom($cell),
                Says::PublishedName => $facts['publishedName'] = $cell === '' ? null : $cell,
                Says::Slot => $facts['slots'][$means->name] = $cell,
                Says::Custom => $facts['custom'] = $this->filled($facts['custom'], [$means->name => $cell]),
                Says::CustomAll => $facts = [
                    ...$facts,
                    'isAllCustom' => true,
                    'custom' => $this->filled($facts['custom'], $this->parameters($column, $cell)),
                ],
                Says::Attribute => $facts['attributes'][$means->name] = $cell,
                Says::Setting => $facts['settings'] += $cell === '' ? [] : [$means->name => $cell],
                Says::KeywordText => $keyword = $cell,
                Says::KeywordMatch => $match = $cell,
                Says::Figure, Says::Nothing => null,
            };
        }
        if ($isDamaged) {
            return null;
        }
        $other = $this->identity->otherAccount($names, $level);
        if ($other !== null) {
            $this->wrong('other-account', null, "This row is of another account, {$other}.");

            return null;
        }
        $steps = $this->identity->steps($names, $level);
        if ($steps === null) {
            $this->wrong('no-identity', null, $this->identity->why($level));

            return null;
        }
        $own = $steps[count($steps) - 1];
        $facts['settings'] = $own->depth === 0 ? $facts['settings'] : [];

        return new Said(
            $this->table,
            $this->row,
            $steps,
            new Facts(...['name' => $own->name, 'type' => $own->type, ...$facts]),
            $keyword === '' ? null : [$keyword, $match === '' ? 'broad' : $match],
            $this->figures($cells, $raw),
        );
    }

    /**
     * @param list<string> $cells
     * @param list<string|int|float|null> $raw
     */
    private function figures(array $cells, array $raw): ?Figures
    {
        $day = null;
        $numbers = [];
        foreach ($this->layout->figures as $place => $column) {
            $cell = $column->said($cells[$place] ?? '') ?? '';
            $name = $column->means->name;
            $read = match (true) {
                $cell === '' => '',
                $name === 'day' => $this->figure->day($cell),
                default => $this->figure->number($cell, $raw[$place] ?? null),
            };
            if ($read === null) {
                $wanted = $name === 'day' ? 'a day like 2026-10-05' : 'a number';
                $this->wrong('unreadable-figure', $column->heading, "“{$cell}” is not {$wanted}; it is left out.");
            } elseif ($read !== '') {
                $name === 'day' ? $day = $read : $numbers[$name] = $read;
            }
        }

        return $day === null || $numbers === [] ? null : new Figures($day, $numbers);
    }

    /** What the map makes of a cell; a word that it does not know says nothing. */
    private function word(Column $column, string $cell): string
    {
        $said = $cell === '' ? '' : $column->said($cell);
        $allowed = match ($column->means->says) {
            Says::Type => $this->dialect->campaignTypes,
            Says::Standing => array_column(Serving::cases(), 'value'),
            Says::KeywordMatch => ['exact', 'phrase', 'broad'],
            Says::Setting => Setting::from($column->means->name)->choices($this->dialect),
            default => null,
        };
        if ($said === null || ($said !== '' && $allowed !== null && ! in_array($said, $allowed, true))) {
            $this->wrong(
                'unknown-word',
                $column->heading,
                "The map does not say what “{$cell}” means".
                    ($allowed === null ? '.' : '; there are '.implode(', ', $allowed).'.'),
            );

            return '';
        }

        return $said;
    }

    /** @return array<string, string> */
    private function parameters(Column $column, string $cell): array
    {
        $parameters = $column->form->parameters($cell);
        if ($parameters === null) {
            $this->wrong(
                'unknown-word',
                $column->heading,
                "“{$cell}” is no list of custom parameters as the map describes it, like “"
                    .$column->form->cell(['name' => 'value']).'”.',
            );
        }

        return $parameters ?? [];
    }

    /**
     * @param array<string, string> $first
     * @param array<string, string> $more
     * @return array<string, string> an empty one says nothing beside a filled one
     */
    private function filled(array $first, array $more): array
    {
        foreach ($more as $name => $value) {
            if ($value !== '' || ! isset($first[$name])) {
                $first[$name] = $value;
            }
        }

        return $first;
    }

    private function wrong(string $code, ?string $column, string $says): void
    {
        $this->problems[] = new Problem($code, Severity::Error, $this->table, $this->row, $column, $says);
    }
}
