<?php

namespace App\Sheets;

use PhpOffice\PhpSpreadsheet\Cell\DataType;
use PhpOffice\PhpSpreadsheet\IOFactory;
use PhpOffice\PhpSpreadsheet\Spreadsheet;
use PhpOffice\PhpSpreadsheet\Writer\Xlsx;
use Vestigon\Core\Document\UnusableInput;

/**
 * A table as a file: CSV (RFC 4180), TSV, or XLSX (ECMA-376).
 *
 * No cell is ever a formula: what would be taken for one gets an apostrophe before it in CSV and TSV (common practice; OWASP names it
 * "CSV injection"), and is plain text in XLSX.
 */
final class Sheet
{
    public const KINDS = ['csv' => 'text/csv', 'tsv' => 'text/tab-separated-values', 'xlsx' => 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'];

    private const MOST_ROWS = 200_000;

    /**
     * @param list<string> $heads
     * @param iterable<list<string>> $rows
     * @return string the name of a temporary file: it is the caller's to remove
     */
    public static function write(string $kind, array $heads, iterable $rows): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'sheet');

        return $kind === 'xlsx' ? self::workbook($file, $heads, $rows) : self::text($file, $kind === 'tsv' ? "\t" : ',', $heads, $rows);
    }

    /**
     * @return iterable<list<string>> the first row is the heading
     *
     * @throws UnusableInput it is no such file
     */
    public static function read(string $name, string $content): iterable
    {
        return str_starts_with($content, "PK\x03\x04") ? self::fromWorkbook($content) : self::fromText($name, $content);
    }

    /**
     * @param list<string> $heads
     * @param iterable<list<string>> $rows
     */
    private static function text(string $file, string $between, array $heads, iterable $rows): string
    {
        $out = fopen($file, 'wb') ?: throw new \RuntimeException("{$file} can't be written");
        fputcsv($out, array_map(self::harmless(...), $heads), $between, '"', '', "\r\n");
        foreach ($rows as $row) {
            fputcsv($out, array_map(self::harmless(...), $row), $between, '"', '', "\r\n");
        }
        fclose($out);

        return $file;
    }

    /**
     * @param list<string> $heads
     * @param iterable<list<string>> $rows
     */
    private static function workbook(string $file, array $heads, iterable $rows): string
    {
        $book = new Spreadsheet;
        $sheet = $book->getActiveSheet();
        $n = 1;
        foreach ([$heads, ...$rows] as $row) {
            foreach ($row as $i => $cell) {
                $sheet->setCellValueExplicit([$i + 1, $n], $cell, DataType::TYPE_STRING);
            }
            $n++;
        }
        (new Xlsx($book))->save($file);

        return $file;
    }

    private static function harmless(string $cell): string
    {
        return preg_match('/^\'*[=+\-@\t\r]/', $cell) === 1 ? "'{$cell}" : $cell;
    }

    private static function plain(string $cell): string
    {
        return preg_match('/^\'+[=+\-@\t\r]/', $cell) === 1 ? substr($cell, 1) : $cell;
    }

    /** @return iterable<list<string>> */
    private static function fromText(string $name, string $content): iterable
    {
        $content = str_starts_with($content, "\xEF\xBB\xBF") ? substr($content, 3) : $content;
        if (! mb_check_encoding($content, 'UTF-8')) {
            throw new UnusableInput("{$name} is not UTF-8 text. Save it as CSV in UTF-8, or as XLSX");
        }
        $between = substr_count(strtok($content, "\r\n") ?: '', "\t") > 0 ? "\t" : ',';
        $in = fopen('php://temp', 'w+b') ?: throw new \RuntimeException('no memory for a sheet');
        fwrite($in, $content);
        rewind($in);
        for ($n = 0; ($row = fgetcsv($in, null, $between, '"', '')) !== false; $n++) {
            if ($n > self::MOST_ROWS) {
                throw new UnusableInput("{$name} has more than ".number_format(self::MOST_ROWS).' rows');
            }
            yield array_map(static fn (?string $c): string => self::plain((string) $c), $row);
        }
        fclose($in);
    }

    /** @return iterable<list<string>> */
    private static function fromWorkbook(string $content): iterable
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'sheet');
        file_put_contents($file, $content);
        try {
            $reader = IOFactory::createReader('Xlsx');
            $reader->setReadDataOnly(true);
            $reader->setReadEmptyCells(false);
            $rows = $reader->load($file)->getActiveSheet()->toArray(null, false, false);
        } catch (\Throwable) {
            throw new UnusableInput('the workbook can’t be read; save it anew as XLSX or CSV');
        } finally {
            unlink($file);
        }
        foreach ($rows as $row) {
            yield array_map(static fn (mixed $c): string => is_scalar($c) ? (string) $c : '', array_values($row));
        }
    }
}
