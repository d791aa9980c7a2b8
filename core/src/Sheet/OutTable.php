<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\SlotKind;

/** One table on its way out again: as it came in, for elements that are written to. */
final readonly class OutTable
{
    private Layout $layout;

    /** The map's columns that the table has. */
    private TableMap $there;

    /**
     * @param list<string|int|float|null> $headings as they came in
     * @param string $account the account's id
     */
    public function __construct(
        public string $title,
        public array $headings,
        private SheetMap $sheet,
        private TableMap $map,
        private Dialect $dialect,
        private string $account,
    ) {
        $this->layout = new Layout($map, 0, $headings);
        $this->there = new TableMap($map->title, $map->level, $map->rowKind, array_values($this->layout->columns));
    }

    /**
     * The column that a text goes into.
     *
     * @param string $level of the element
     * @return int|null its place; null: the table has none, or no rows of this level
     */
    public function columnFor(Write $write, string $level): ?int
    {
        if (! $this->hasRowsOf($level)) {
            return null;
        }
        $all = null;
        foreach ($this->layout->columns as $place => $column) {
            $means = $column->means;
            if ($write->setting !== null) {
                if (
                    $means->says === Says::Setting
                    && $means->name === $write->setting->value
                    && $column->cell((string) $write->after) !== null
                ) {
                    return $place;
                }

                continue;
            }
            if (
                $column->values === null
                && match ($means->says) {
                    Says::Slot => $means->name === $write->slot?->value,
                    Says::Custom => $means->name === $write->custom,
                    // where a row is told by its name, another name would be another element
                    Says::Name => $write->isName()
                        && ($means->level ?? $level) === $level
                        && $this->there->hasIdOf($level),
                    default => false,
                }
            ) {
                return $place;
            }
            if (
                $write->custom !== null
                && $means->says === Says::CustomAll
                && ($write->after === null || $column->form->holds($write->custom, $write->after))
            ) {
                $all = $place;
            }
        }

        return $all;
    }

    /**
     * The columns that tell which element a row is about.
     *
     * @return list<int> their places
     */
    public function tellingFor(string $level): array
    {
        $byName = ! $this->there->hasIdOf($level);
        $depth = $this->dialect->level($level)->depth ?? 0;
        $places = $this->layout->kindAt === null ? [] : [$this->layout->kindAt];
        foreach ($this->layout->columns as $place => $column) {
            $means = $column->means;
            $of = $means->level ?? $level;
            $isOwn = $of === $level;
            $above = $this->dialect->level($of)->depth ?? PHP_INT_MAX;
            $tells = match ($means->says) {
                Says::Id => $isOwn || ($byName && $above < $depth),
                Says::Name => $byName && $above <= $depth && ! $this->there->hasIdOf($of),
                default => false,
            };
            if ($tells) {
                $places[] = $place;
            }
        }

        return $places;
    }

    /**
     * @param Path $path to the element, as it will be
     * @param list<int> $places the columns that go out
     * @param array<string, string> $settings what the account is switched to, by name
     * @return list<string>|null the cells of these; null: a row with them would not be read back as this element
     */
    public function row(Path $path, array $places, array $settings = []): ?array
    {
        $node = $path->last();
        $cells = array_fill(0, count($this->headings), '');
        foreach ($this->layout->columns as $place => $column) {
            $cells[$place] = $this->cell($column, $path, $settings);
        }
        if ($this->layout->kindAt !== null) {
            $cells[$this->layout->kindAt] = (string) array_search(
                $node->level,
                array_diff_key($this->map->rowKind->levels ?? [], [Column::ANY => true]),
                true,
            );
        }
        $cells = array_map(static fn (int $place): string => $cells[$place], $places);

        return $this->isReadBack($cells, $places, $node, $settings) ? $cells : null;
    }

    /**
     * @param list<int> $places
     * @return list<string> the headings of these columns
     */
    public function headingsOf(array $places): array
    {
        return array_map(fn (int $place): string => (string) $this->headings[$place], $places);
    }

    private function hasRowsOf(string $level): bool
    {
        return match (true) {
            $this->map->rowKind !== null => $this->layout->kindAt !== null
                && in_array($level, array_diff_key($this->map->rowKind->levels, [Column::ANY => true]), true),
            $this->map->level !== null => $this->map->level === $level,
            default => $this->tellingFor($level) !== [],
        };
    }

    /** @param array<string, string> $settings */
    private function cell(Column $column, Path $path, array $settings): string
    {
        $means = $column->means;
        $own = $path->last();
        $level = $means->level ?? $own->level;
        $named = null;
        foreach ($path->nodes as $node) {
            $named = $node->level === $level ? $node : $named;
        }
        $says = match ($means->says) {
            Says::Id => $named === null || str_starts_with($named->id, '=') ? '' : $named->id,
            Says::Name => $named->name ?? '',
            Says::Type => $named->type ?? '',
            Says::PublishedName => $own->publishedName ?? '',
            Says::Slot => $own->slots[$means->name] ?? '',
            Says::Custom => $own->custom[$means->name] ?? '',
            Says::CustomAll => $column->form->cell($own->custom),
            Says::Attribute => $own->attributes[$means->name] ?? '',
            Says::Setting => $settings[$means->name] ?? '',
            Says::Standing, Says::KeywordText, Says::KeywordMatch, Says::Figure, Says::Nothing => '',
        };

        return $says === '' ? '' : $column->cell($says) ?? '';
    }

    /**
     * Will the row be read back as what it says?
     *
     * @param list<string> $cells
     * @param list<int> $places
     * @param array<string, string> $settings
     */
    private function isReadBack(array $cells, array $places, Node $node, array $settings): bool
    {
        $layout = new Layout($this->map, 0, $this->headingsOf($places));
        $cells = array_map(Cells::harmless(...), $cells);
        $row = (new RowReader($this->dialect, $this->sheet, $layout, 0, $this->account))->read($cells, 2);
        $facts = $row->said?->facts;
        if (
            $facts === null
            || $row->problems !== []
            || $row->said->own()->id !== $node->id
            || $facts->settings != $settings
        ) {
            return false;
        }
        foreach ($facts->slots as $kind => $text) {
            if ($text !== ($node->slot(SlotKind::from($kind)) ?? '')) {
                return false;
            }
        }
        $custom = $facts->isAllCustom ? $facts->custom + $node->custom : $facts->custom;
        foreach ($custom as $name => $value) {
            if ($value !== ($node->custom[$name] ?? '') || ($facts->isAllCustom && ! isset($facts->custom[$name]))) {
                return false;
            }
        }

        return true;
    }
}
