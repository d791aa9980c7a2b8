<?php

namespace App\Intakes;

use App\Models\Intake;
use App\Models\SheetMap as KeptMap;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Sheet\Certainty;
use Vestigon\Core\Sheet\Column;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Sheet\Layout;
use Vestigon\Core\Sheet\SheetMap;
use Vestigon\Core\Sheet\SheetMapReader;
use Vestigon\Core\Sheet\SuggestedColumn;
use Vestigon\Core\Sheet\Suggestion;
use Vestigon\Core\Sheet\TableMap;

/** What the columns of an intake's tables mean: as confirmed, as in a map that was kept before, or as suggested. */
final class Maps
{
    /** @var list<SheetMap>|null the client's for this platform, the newest first */
    private ?array $kept = null;

    private ?SheetMap $used = null;

    public function __construct(private readonly Intake $intake, private readonly Dialect $dialect) {}

    /** @return SheetMap|null as a person has confirmed it */
    public function confirmed(): ?SheetMap
    {
        return $this->intake->map === null
            ? null
            : SheetMapReader::read(new Cursor($this->intake->map), $this->dialect);
    }

    /**
     * @return array{decimal: string, blank: list<string>, totals: list<string>} what words in cells say: as confirmed,
     *     else as the kept map has it that the tables were last understood by
     */
    public function cells(): array
    {
        $map = $this->confirmed() ?? $this->used;

        return ['decimal' => $map->decimal ?? '.', 'blank' => $map->blank ?? [], 'totals' => $map->totals ?? []];
    }

    /**
     * @param string $title a table's
     * @param list<list<string|int|float|null>> $first its first rows
     * @param int|null $at the place of its heading row, where a person has said so
     * @return array{from: string, at: int|null, table: TableMap|null, columns: list<SuggestedColumn>} where the map
     *     is from, the place of the heading row, and a word about each column
     */
    public function of(string $title, array $first, ?int $at = null): array
    {
        $suggested = (new Suggestion($this->dialect))->of($title, $first, $at);
        $words = [];
        foreach ($suggested->columns ?? [] as $column) {
            $words[$column->heading] = $column;
        }
        [$from, $map] = $this->chosen($title, $first, $at);
        $table = $map ?? $suggested?->map();

        return [
            'from' => $from,
            'at' => $table === null ? null : $at ?? HeadingRow::at($first, $table),
            'table' => $table,
            'columns' => array_map(
                static fn (Column $c): SuggestedColumn => self::worded($c, $words[$c->heading] ?? null, $from),
                $table->columns ?? [],
            ),
        ];
    }

    /**
     * @param list<list<string|int|float|null>> $first
     * @return array{string, TableMap|null}
     */
    private function chosen(string $title, array $first, ?int $at): array
    {
        $confirmed = $this->confirmed()?->tableFor($title, $first);
        if ($confirmed !== null) {
            return ['confirmed', $confirmed];
        }
        foreach ($this->kept ??= $this->kept() as $map) {
            $layout = Layout::in($map, $title, $first, $at);
            if ($layout !== null && $layout->missing === []) {
                $this->used = $map;

                return ["kept as “{$map->title}”", $layout->map];
            }
        }

        return ['suggested', null];
    }

    /** @return list<SheetMap> */
    private function kept(): array
    {
        return $this->intake->client
            ->sheetMaps()
            ->where('dialect', $this->dialect->id)
            ->latest('updated_at')
            ->limit(50)
            ->get()
            ->map(fn (KeptMap $m): SheetMap => SheetMapReader::read(new Cursor($m->document), $this->dialect))
            ->all();
    }

    private static function worded(Column $column, ?SuggestedColumn $word, string $from): SuggestedColumn
    {
        if ($word !== null && $word->means->written() === $column->means->written()) {
            return new SuggestedColumn(
                $column->heading,
                $column->means,
                $word->certainty,
                $word->why,
                $column->values,
                array_values(array_diff($word->asked, array_keys($column->values ?? []))),
                $column->form,
            );
        }

        return new SuggestedColumn(
            $column->heading,
            $column->means,
            Certainty::Sure,
            "As {$from}.",
            $column->values,
            form: $column->form,
        );
    }
}
