<?php

namespace App\Sheets;

use OpenSpout\Common\Entity\Cell;
use OpenSpout\Common\Entity\Row;
use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use Vestigon\Core\Document\UnusableInput;

/**
 * A table as an XLSX workbook (ECMA-376), row by row: neither reading nor writing holds it in memory. Every cell is
 * written as text.
 */
final class Workbook
{
    private const PIECE = 1 << 16;

    /**
     * @param list<string> $heads
     * @param iterable<list<string>> $rows
     */
    public static function write(string $file, array $heads, iterable $rows): void
    {
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($file);
        $writer->addRow(self::row($heads));
        foreach ($rows as $row) {
            $writer->addRow(self::row($row));
        }
        $writer->close();
    }

    /**
     * @return iterable<list<string>> of its first sheet
     *
     * @throws UnusableInput it is none, or unpacks to too much
     */
    public static function read(string $content): iterable
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'sheet');
        $reader = ReaderEntityFactory::createXLSXReader();
        $broken = new UnusableInput('the workbook can’t be read; save it anew as XLSX or CSV');
        try {
            file_put_contents($file, $content);
            self::boundUnpacked($file, $broken);
            try {
                $reader->open($file);
                foreach ($reader->getSheetIterator() as $sheet) {
                    foreach ($sheet->getRowIterator() as $row) {
                        yield array_map(self::text(...), array_values($row->toArray()));
                    }
                    break;
                }
            } catch (UnusableInput $e) {
                throw $e;
            } catch (\Exception|\ValueError) {
                throw $broken;
            }
        } finally {
            $reader->close();
            unlink($file);
        }
    }

    /** Unpacks every part once, counting and keeping nothing: what a part says of its own size may be a lie. */
    private static function boundUnpacked(string $file, UnusableInput $broken): void
    {
        $zip = new \ZipArchive();
        if ($zip->open($file, \ZipArchive::RDONLY) !== true || $zip->locateName('xl/workbook.xml') === false) {
            throw $broken;
        }
        $most = (int) config('limits.unpacked');
        $all = 0;
        for ($i = 0; $i < $zip->numFiles; $i++) {
            $part = $zip->getStreamIndex($i);
            while ($part !== false && ! feof($part)) {
                $some = fread($part, self::PIECE);
                $all += strlen((string) $some);
                if ($all > $most) {
                    throw new UnusableInput('the workbook unpacks to more than '.($most >> 20).' MB');
                }
                if ($some === '' || $some === false) {
                    break;
                }
            }
        }
        $zip->close();
    }

    /** @param list<string> $cells */
    private static function row(array $cells): Row
    {
        return WriterEntityFactory::createRow(
            array_map(static function (string $text): Cell {
                $cell = WriterEntityFactory::createCell($text);
                $cell->setType(Cell::TYPE_STRING);

                return $cell;
            }, $cells),
        );
    }

    private static function text(mixed $value): string
    {
        return match (true) {
            $value instanceof \DateTimeInterface => $value->format('Y-m-d H:i:s'),
            is_bool($value) => $value ? 'TRUE' : 'FALSE',
            is_scalar($value) => (string) $value,
            default => '',
        };
    }
}
