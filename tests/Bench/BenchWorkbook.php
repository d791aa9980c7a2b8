<?php

namespace Tests\Bench;

use App\Sheets\Files\FirstRows;
use App\Sheets\Files\Opening;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\File;
use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Reader\SheetInterface;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Sheet\Layout;
use Vestigon\Core\Sheet\RowReader;
use Vestigon\Core\Sheet\RowSort;
use Vestigon\Core\Sheet\SheetMap;
use Vestigon\Core\Sheet\SheetMapReader;

/** Times a workbook whose rows are read and understood against a bare pass of the library that reads it. */
final class BenchWorkbook extends Command
{
    use TellsFigures;

    protected $signature = 'bench:workbook {rows=100000}';

    protected $description = 'Measures accounts that come as workbooks';

    private const TURNS = 3;

    private const COLUMNS = [
        'Campaign ID' => 'campaign.id',
        'Ad group ID' => 'group.id',
        'Ad ID' => 'id',
        'Ad' => 'name',
        'Page' => 'slot.landing',
        'Query' => 'slot.suffix',
    ];

    public function handle(): int
    {
        $rows = (int) $this->argument('rows');
        $path = (string) tempnam(sys_get_temp_dir(), 'workbook');
        try {
            self::write($path, $rows);
            $bare = $understood = [];
            for ($i = 0; $i < self::TURNS; $i++) {
                $bare[] = self::time(static fn (): int => self::passed($path), $rows + 1);
                $understood[] = self::time(static fn (): int => self::understood($path), $rows);
            }
        } finally {
            File::delete($path);
        }
        $this->figure(
            number_format($rows).' rows of an XLSX, each understood; times a bare openspout pass',
            min($understood) / min($bare),
            2,
        );

        return $this->allMet();
    }

    private static function write(string $path, int $rows): void
    {
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        $writer->addRow(WriterEntityFactory::createRowFromArray(array_keys(self::COLUMNS)));
        for ($i = 0; $i < $rows; $i++) {
            $writer->addRow(WriterEntityFactory::createRowFromArray([
                7_000_000 + intdiv($i, 1000),
                8_000_000 + intdiv($i, 20),
                90_000_000 + $i,
                "Ad number {$i}",
                "https://velmar.example/page/{$i}?colour=blue",
                $i % 3 === 0 ? 'utm_source=northquay&utm_medium=cpc' : '',
            ]));
        }
        $writer->close();
    }

    private static function passed(string $path): int
    {
        $reader = ReaderEntityFactory::createXLSXReader();
        $reader->open($path);
        $rows = 0;
        /** @var SheetInterface $sheet */
        foreach ($reader->getSheetIterator() as $sheet) {
            foreach ($sheet->getRowIterator() as $row) {
                $rows += (int) ($row->toArray() !== []);
            }
        }
        $reader->close();

        return $rows;
    }

    private static function understood(string $path): int
    {
        $dialect = Shipped::all()['northquay-search'];
        $columns = [];
        foreach (self::COLUMNS as $heading => $means) {
            $columns[] = ['heading' => $heading, 'means' => $means];
        }
        $map = SheetMapReader::read(
            new Cursor([
                'format' => SheetMap::FORMAT,
                'dialect' => $dialect->id,
                'title' => 'x',
                'tables' => [['title' => 'Sheet1', 'level' => 'ad', 'columns' => $columns]],
            ]),
            $dialect,
        );
        $table = Opening::tables($path, 'ads.xlsx')[0];
        $layout = Layout::in($map, $table->title(), FirstRows::of($table, HeadingRow::WITHIN), null)
            ?? throw new \LogicException('the workbook has no headings');
        $reader = new RowReader($dialect, $map, $layout, 0, 'bench');
        $number = $rows = 0;
        foreach ($table->rows() as $cells) {
            $rows += ++$number > $layout->at + 1 && $reader->read($cells, $number)->sort === RowSort::Element ? 1 : 0;
        }

        return $rows;
    }

    /** @param \Closure(): int $work */
    private static function time(\Closure $work, int $rows): float
    {
        $start = hrtime(true);
        $done = $work();
        if ($done !== $rows) {
            throw new \LogicException("{$done} rows were read of {$rows}");
        }

        return (hrtime(true) - $start) / 1e9;
    }
}
