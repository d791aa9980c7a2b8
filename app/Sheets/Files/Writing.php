<?php

namespace App\Sheets\Files;

use OpenSpout\Common\Entity\Cell;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use Vestigon\Core\Sheet\Cells;

/**
 * Writes tables as files of the kind that they came in. No cell is ever a formula: what would be taken for one gets an
 * apostrophe before it in text (common practice; OWASP names it "CSV injection"), and is plain text in workbooks.
 */
final class Writing
{
    private const TYPES = [
        'csv' => 'text/csv',
        'xlsx' => 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
        'ods' => 'application/vnd.oasis.opendocument.spreadsheet',
    ];

    private const MARKS = ['UTF-16LE' => "\xFF\xFE", 'UTF-16BE' => "\xFE\xFF"];

    /**
     * @param array<string, non-empty-list<array{title: string, form: Form, rows: \Closure(): iterable<list<mixed>>}>>
     *     $files by name
     * @param string $name of the whole, without its ending
     * @return array{path: string, name: string, type: string} one file as it is, several in a zip
     */
    public static function files(array $files, string $name): array
    {
        $written = [];
        foreach ($files as $of => $tables) {
            $kind = $tables[0]['form']->kind;
            $path = (string) tempnam(sys_get_temp_dir(), 'sheet');
            $kind === 'csv' ? self::text($path, $tables[0]) : self::workbook($path, $kind, $tables);
            $written[] = [$path, $kind, pathinfo((string) $of, PATHINFO_FILENAME)];
        }
        if (count($written) === 1) {
            [$path, $kind] = $written[0];

            return ['path' => $path, 'name' => "{$name}.{$kind}", 'type' => self::TYPES[$kind]];
        }
        $all = (string) tempnam(sys_get_temp_dir(), 'sheets');
        $zip = new \ZipArchive();
        $zip->open($all, \ZipArchive::OVERWRITE);
        foreach ($written as [$path, $kind, $of]) {
            $zip->addFile($path, "{$of}.{$kind}");
        }
        $zip->close();
        array_map(unlink(...), array_column($written, 0));

        return ['path' => $all, 'name' => "{$name}.zip", 'type' => 'application/zip'];
    }

    /** @param array{title: string, form: Form, rows: \Closure(): iterable<list<mixed>>} $table */
    private static function text(string $path, array $table): void
    {
        $form = $table['form'];
        $encoding = $form->encoding ?? 'UTF-8';
        $out = fopen($path, 'wb') ?: throw new \RuntimeException("{$path} can't be written");
        $plain = fopen('php://temp', 'w+b') ?: throw new \RuntimeException('no memory for a sheet');
        fwrite($out, self::MARKS[$encoding] ?? '');
        foreach (($table['rows'])() as $row) {
            ftruncate($plain, 0);
            rewind($plain);
            $cells = array_map(static fn (mixed $c): string => Cells::harmless((string) $c), $row);
            fputcsv($plain, $cells, $form->delimiter ?? ',', '"', '', "\r\n");
            rewind($plain);
            $line = (string) stream_get_contents($plain);
            fwrite($out, $encoding === 'UTF-8' ? $line : mb_convert_encoding($line, $encoding, 'UTF-8'));
        }
        fclose($plain);
        fclose($out);
    }

    /** @param list<array{title: string, form: Form, rows: \Closure(): iterable<list<mixed>>}> $tables */
    private static function workbook(string $path, string $kind, array $tables): void
    {
        $writer = $kind === 'ods' ? WriterEntityFactory::createODSWriter() : WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        foreach ($tables as $i => $table) {
            $sheet = $i === 0 ? $writer->getCurrentSheet() : $writer->addNewSheetAndMakeItCurrent();
            $sheet->setName(mb_substr((string) preg_replace('~[\\\\/?*:\[\]]~', ' ', $table['title']), 0, 31));
            foreach (($table['rows'])() as $row) {
                $writer->addRow(WriterEntityFactory::createRow(array_map(static function (mixed $text): Cell {
                    $cell = WriterEntityFactory::createCell((string) $text);
                    $cell->setType(Cell::TYPE_STRING);

                    return $cell;
                }, $row === [] ? [''] : $row))); // no reader takes a row without any cell
            }
        }
        $writer->close();
    }
}
