<?php

namespace App\Sheets;

use Vestigon\Core\Document\UnusableInput;

/**
 * A table as a file: CSV (RFC 4180), TSV, or XLSX (ECMA-376).
 *
 * No cell is ever a formula: what would be taken for one gets an apostrophe before it in CSV and TSV (common practice;
 * OWASP names it "CSV injection"), and is plain text in XLSX.
 */
final class Sheet
{
    public const KINDS = [
        'csv' => 'text/csv',
        'tsv' => 'text/tab-separated-values',
        'xlsx' => 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    ];

    /**
     * @param list<string> $heads
     * @param iterable<list<string>> $rows
     * @return string the name of a temporary file: it is the caller's to remove
     */
    public static function write(string $kind, array $heads, iterable $rows): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'sheet');

        if ($kind === 'xlsx') {
            Workbook::write($file, $heads, $rows);

            return $file;
        }

        return self::text($file, $kind === 'tsv' ? "\t" : ',', $heads, $rows);
    }

    /**
     * @return iterable<list<string>> the first row is the heading
     *
     * @throws UnusableInput it is no such file
     */
    public static function read(string $name, string $content): iterable
    {
        return self::bounded(
            $name,
            str_starts_with($content, "PK\x03\x04") ? Workbook::read($content) : self::fromText($name, $content),
        );
    }

    /**
     * @param iterable<list<string>> $rows
     * @return iterable<list<string>> ends with an error as soon as there are too many
     */
    private static function bounded(string $name, iterable $rows): iterable
    {
        $n = $cells = 0;
        foreach ($rows as $row) {
            $cells += count($row);
            $over = match (true) {
                $n++ > config('limits.rows') => number_format(config('limits.rows')).' rows',
                count($row) > config('limits.columns') => number_format(config('limits.columns')).' columns',
                $cells > config('limits.cells') => number_format(config('limits.cells')).' cells',
                default => null,
            };
            if ($over !== null) {
                throw new UnusableInput("{$name} has more than {$over}; take it in parts");
            }
            yield $row;
        }
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
        while (($row = fgetcsv($in, null, $between, '"', '')) !== false) {
            yield array_map(static fn (?string $c): string => self::plain((string) $c), $row);
        }
        fclose($in);
    }
}
