<?php

namespace App\Intakes;

use App\Events\WorkWentOn;
use App\Models\Intake;
use App\Models\IntakeFile;
use App\Models\IntakeStatus;
use App\Sheets\Files\Opening;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Sheet\Layout;
use Vestigon\Core\Sheet\Problem;
use Vestigon\Core\Sheet\RowReader;
use Vestigon\Core\Sheet\RowSort;
use Vestigon\Core\Sheet\SheetMap;
use Vestigon\Core\Sheet\SheetMapReader;

/** Reads every row of an intake's files by its map, and finds out what an import would make of them. */
final class Reading
{
    private const CHUNK = 5000;

    private readonly Problems $problems;

    private readonly KnownElements $known;

    private readonly Stage $stage;

    /** @var array{rows: int, totals: int} */
    private array $counts = ['rows' => 0, 'totals' => 0];

    public function __construct(private readonly Intake $intake, private readonly Dialect $dialect)
    {
        $this->problems = new Problems($intake);
        $this->known = new KnownElements($intake->account);
        $this->stage = new Stage($intake, $dialect, $this->known, $this->problems);
    }

    /**
     * @return bool false: it was changed or given up meanwhile, and this reading is of no use
     *
     * @throws UnusableInput a file can't be read
     */
    public function run(): bool
    {
        $this->forget();
        $map = SheetMapReader::read(new Cursor((array) $this->intake->map), $this->dialect);
        foreach ($this->intake->tables ?? [] as $at => $look) {
            if ($look['use'] && ! $this->table($map, $look, $at)) {
                return false;
            }
        }
        $this->stage->flush();
        $fates = (new Fates($this->intake, $this->dialect, $this->known, $this->problems))->settle();
        $this->problems->flush();

        return $this->goesOn([
            'status' => IntakeStatus::Read,
            'done' => $this->counts['rows'],
            'counts' => json_encode([...$this->counts, ...$fates, 'problems' => (object) $this->problems->counts()]),
        ]);
    }

    /** @param array<string, mixed> $look */
    private function table(SheetMap $map, array $look, int $at): bool
    {
        $file = IntakeFile::query()->findOrFail($look['file'])->setRelation('intake', $this->intake);
        $table = Opening::tables($file->path(), $file->name)[$look['at']];
        $reader = null;
        $first = [];
        $row = 0;
        foreach ($table->rows() as $cells) {
            $row++;
            if ($reader === null) {
                $first[] = $cells;
                if ($row < HeadingRow::WITHIN) {
                    continue;
                }
                [$reader, $rest] = $this->reader($map, $look['title'], $first, $at);
                foreach ($rest as $number => $some) {
                    $this->row($reader, $some, $number);
                }

                continue;
            }
            $this->row($reader, $cells, $row);
            if ($row % self::CHUNK === 0 && ! $this->goesOn(['done' => $this->counts['rows']])) {
                return false;
            }
        }
        if ($reader === null) {
            [$reader, $rest] = $this->reader($map, $look['title'], $first, $at);
            foreach ($rest as $number => $some) {
                $this->row($reader, $some, $number);
            }
        }

        return true;
    }

    /**
     * @param list<list<string|int|float|null>> $first
     * @return array{RowReader|false, array<int, list<string|int|float|null>>} false: it has no headings; and the rows
     *     behind them, by number
     */
    private function reader(SheetMap $map, string $title, array $first, int $at): array
    {
        $table = $map->tableFor($title, $first);
        $layout = $table === null ? null : Layout::of($table, $first);
        if ($layout === null) {
            $this->problems->add([Problem::noHeadings($at)]);

            return [false, []];
        }
        $this->problems->add($layout->problems($at));
        $rest = [];
        foreach (array_slice($first, $layout->at + 1) as $i => $cells) {
            $rest[$layout->at + 2 + $i] = $cells;
        }

        return [new RowReader($this->dialect, $map, $layout, $at, $this->intake->number), $rest];
    }

    /** @param list<string|int|float|null> $cells */
    private function row(RowReader|false $reader, array $cells, int $number): void
    {
        if ($reader === false) {
            return;
        }
        $row = $reader->read($cells, $number);
        $this->counts['rows'] += (int) ($row->sort === RowSort::Element);
        $this->counts['totals'] += (int) ($row->sort === RowSort::Total);
        $this->problems->add($row->problems);
        if ($row->said !== null) {
            $this->stage->add($row->said);
        }
    }

    /**
     * @param array<string, mixed> $update
     * @return bool false: somebody has changed it meanwhile
     */
    private function goesOn(array $update): bool
    {
        WorkWentOn::dispatch();

        return Intake::query()
            ->whereKey($this->intake->id)
            ->where(['revision' => $this->intake->revision, 'status' => IntakeStatus::Reading])
            ->update([...$update, 'updated_at' => now()]) === 1;
    }

    /** What an earlier reading has left. */
    private function forget(): void
    {
        foreach (['staged', 'intake_problems'] as $table) {
            do {
                $gone = DB::table($table)->where('intake_id', $this->intake->id)->limit(self::CHUNK)->delete();
            } while ($gone === self::CHUNK);
        }
    }
}
