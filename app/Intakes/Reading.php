<?php

namespace App\Intakes;

use App\Events\WorkWentOn;
use App\Models\Intake;
use App\Models\IntakeFile;
use App\Models\IntakeStatus;
use App\Sheets\Files\FirstRows;
use App\Sheets\Files\Opening;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Sheet\Layout;
use Vestigon\Core\Sheet\Problem;
use Vestigon\Core\Sheet\Row;
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
        $fates = (new Fates($this->intake, $this->dialect, $this->known, $this->problems, $this->stage))->settle();
        $this->problems->flush();

        return $this->goesOn([
            'status' => IntakeStatus::Read,
            'done' => $this->counts['rows'],
            'counts' => json_encode([
                ...$this->counts,
                ...$fates,
                'figures' => (new StagedFigures($this->intake))->counts(count($this->dialect->levels) - 1),
                'problems' => (object) $this->problems->counts(),
            ]),
        ]);
    }

    /** @param array<string, mixed> $look */
    private function table(SheetMap $map, array $look, int $at): bool
    {
        $file = IntakeFile::query()->findOrFail($look['file'])->setRelation('intake', $this->intake);
        $table = Opening::tables($file->path(), $file->name, Looks::told($look))[$look['at']];
        $first = FirstRows::of($table, HeadingRow::WITHIN);
        $layout = Layout::in($map, $look['title'], $first, Looks::headingAt($look));
        if ($layout === null) {
            $this->problems->add([Problem::noHeadings($at)]);

            return true;
        }
        $this->problems->add($layout->problems($at));
        $reader = new RowReader($this->dialect, $map, $layout, $at, $this->intake->number);
        $number = 0;
        foreach ($table->rows() as $cells) {
            if (++$number > $layout->at + 1) {
                $this->row($reader->read($cells, $number));
            }
            if ($number % self::CHUNK === 0 && ! $this->goesOn(['done' => $this->counts['rows']])) {
                return false;
            }
        }

        return true;
    }

    private function row(Row $row): void
    {
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
        foreach (['staged', 'staged_figures', 'intake_problems'] as $table) {
            do {
                $gone = DB::table($table)->where('intake_id', $this->intake->id)->limit(self::CHUNK)->delete();
            } while ($gone === self::CHUNK);
        }
    }
}
