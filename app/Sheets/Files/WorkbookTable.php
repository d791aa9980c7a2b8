<?php

namespace App\Sheets\Files;

use OpenSpout\Common\Exception\SpoutException;
use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Reader\ReaderInterface;
use OpenSpout\Reader\SheetInterface;
use Vestigon\Core\Document\UnusableInput;

/** A sheet of a workbook: XLSX (ECMA-376) or ODS (OASIS OpenDocument), read row by row. */
final readonly class WorkbookTable implements Table
{
    private function __construct(
        private string $kind,
        private string $path,
        private string $name,
        private string $title,
        private int $at,
    ) {}

    /**
     * @return list<Table> its sheets, but for empty ones
     *
     * @throws UnusableInput
     */
    public static function all(string $kind, string $path, string $name): array
    {
        $tables = [];
        self::opened($kind, $path, $name, static function (ReaderInterface $reader) use (
            &$tables,
            $kind,
            $path,
            $name,
        ): void {
            $at = 0;
            /** @var SheetInterface $sheet */
            foreach ($reader->getSheetIterator() as $sheet) {
                foreach ($sheet->getRowIterator() as $row) {
                    if ($row->getNumCells() > 0) {
                        $tables[] = new self($kind, $path, $name, $sheet->getName(), $at);
                        break;
                    }
                }
                $at++;
            }
        });

        return $tables === [] ? throw new UnusableInput("{$name} holds nothing") : $tables;
    }

    public function title(): string
    {
        return $this->title;
    }

    public function form(): Form
    {
        return new Form($this->kind);
    }

    public function rows(): iterable
    {
        return MergedInWorkbook::of($this->kind, $this->path, $this->at, $this->name)->filled($this->asTheyStand());
    }

    /** @return iterable<list<string|int|float|null>> */
    private function asTheyStand(): iterable
    {
        $reader = self::reader($this->kind);
        try {
            $reader->open($this->path);
            $at = $number = 0;
            /** @var SheetInterface $sheet */
            foreach ($reader->getSheetIterator() as $sheet) {
                if ($at++ === $this->at) {
                    foreach ($sheet->getRowIterator() as $row) {
                        TooWide::refuse($row->getNumCells(), ++$number, $this->name);
                        yield array_map(self::cell(...), array_values($row->toArray()));
                    }
                    break;
                }
            }
        } catch (SpoutException|\ValueError|\TypeError) {
            throw self::broken($this->name);
        } finally {
            $reader->close();
        }
    }

    /** @param \Closure(ReaderInterface): void $use */
    private static function opened(string $kind, string $path, string $name, \Closure $use): void
    {
        $reader = self::reader($kind);
        try {
            $reader->open($path);
            $use($reader);
        } catch (SpoutException|\ValueError|\TypeError) {
            throw self::broken($name);
        } finally {
            $reader->close();
        }
    }

    private static function reader(string $kind): ReaderInterface
    {
        $reader = $kind === 'ods' ? OdsEntities::reader() : ReaderEntityFactory::createXLSXReader();
        $reader->setShouldPreserveEmptyRows(true); // rows count as the person sees them

        return $reader;
    }

    private static function broken(string $name): UnusableInput
    {
        return new UnusableInput("{$name} can't be read; save it anew as XLSX, ODS or CSV");
    }

    private static function cell(mixed $value): string|int|float|null
    {
        return match (true) {
            $value === null, $value === '' => null,
            $value instanceof \DateTimeInterface => $value->format(
                $value->format('His') === '000000' ? 'Y-m-d' : 'Y-m-d H:i:s',
            ),
            $value instanceof \DateInterval => $value->format('%H:%I:%S'),
            is_bool($value) => $value ? 'TRUE' : 'FALSE',
            is_int($value), is_float($value), is_string($value) => $value,
            default => null,
        };
    }
}
