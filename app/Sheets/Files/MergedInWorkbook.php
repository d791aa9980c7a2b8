<?php

namespace App\Sheets\Files;

use Vestigon\Core\Document\UnusableInput;

/**
 * Finds the merged cells of a sheet of a workbook, which openspout passes over: `mergeCell` behind the rows in XLSX
 * (ECMA-376 part 1, §18.3.1.54), spans at the cells in ODS (OpenDocument 1.2 part 1, §19.677 and §19.679).
 */
final class MergedInWorkbook
{
    private const MOST = 200_000;

    private const PIECE = 1 << 18;

    /** @throws UnusableInput there are too many */
    public static function of(string $kind, string $path, int $sheet, string $name): Merged
    {
        $areas = [];
        foreach ($kind === 'xlsx' ? self::inXlsx($path, $sheet) : self::inOds($path, $sheet) as $area) {
            $areas[] = ['right' => min($area['right'], config('limits.columns') - 1)] + $area;
            if (count($areas) > self::MOST) {
                throw new UnusableInput(
                    "{$name} has more than ".number_format(self::MOST).' merged cells. Save it without them',
                );
            }
        }
        $areas = array_values(array_filter($areas, static fn (array $a): bool => $a['left'] <= $a['right']));
        usort($areas, static fn (array $a, array $b): int => $a['top'] <=> $b['top']);

        return new Merged($areas);
    }

    /** @return iterable<array{top: int, left: int, bottom: int, right: int}> */
    private static function inXlsx(string $path, int $sheet): iterable
    {
        $part = self::part($path, $sheet);
        $stream = $part === null ? false : @fopen("zip://{$path}#{$part}", 'rb');
        $rest = '';
        while ($stream !== false && ! feof($stream)) {
            $text = $rest.fread($stream, self::PIECE);
            preg_match_all(
                '/<(?:\w+:)?mergeCell\s[^>]*?ref="([A-Z]+)(\d+):([A-Z]+)(\d+)"/',
                $text,
                $found,
                PREG_SET_ORDER,
            );
            foreach ($found as [, $left, $top, $right, $bottom]) {
                yield [
                    'top' => (int) $top,
                    'left' => self::column($left),
                    'bottom' => (int) $bottom,
                    'right' => self::column($right),
                ];
            }
            $begun = strrpos($text, '<');
            $rest = $begun === false || str_contains(substr($text, $begun), '>') ? '' : substr($text, $begun);
        }
    }

    /** The part of an XLSX that holds a sheet, by the order in which the workbook names them. */
    private static function part(string $path, int $sheet): ?string
    {
        $id = $target = null;
        $at = 0;
        foreach (self::elements($path, 'xl/workbook.xml', 'sheet') as $element) {
            $id = $at++ === $sheet ? $element->getAttribute('r:id') : $id;
        }
        foreach (self::elements($path, 'xl/_rels/workbook.xml.rels', 'Relationship') as $element) {
            $target = $element->getAttribute('Id') === $id ? $element->getAttribute('Target') : $target;
        }

        return match (true) {
            $id === null || $target === null => null,
            str_starts_with($target, '/') => substr($target, 1),
            default => "xl/{$target}",
        };
    }

    /** @return iterable<array{top: int, left: int, bottom: int, right: int}> */
    private static function inOds(string $path, int $sheet): iterable
    {
        $table = -1;
        $row = $column = 0;
        $rows = 1;
        $number = static fn (\XMLReader $x, string $name): int => max(1, (int) $x->getAttribute("table:{$name}"));
        foreach (
            self::elements($path, 'content.xml', 'table', 'table-row', 'table-cell', 'covered-table-cell') as $x
        ) {
            if ($x->localName === 'table') {
                [$table, $row, $rows] = [$table + 1, 0, 1]; // its first row is 1

                continue;
            }
            if ($x->localName === 'table-row') {
                [$row, $column] = [$row + $rows, 0];
                $rows = $number($x, 'number-rows-repeated');

                continue;
            }
            $right = $column + $number($x, 'number-columns-spanned') - 1;
            $bottom = $row + $number($x, 'number-rows-spanned') - 1;
            if ($table === $sheet && ($right > $column || $bottom > $row)) {
                yield ['top' => $row, 'left' => $column, 'bottom' => $bottom, 'right' => $right];
            }
            $column += $number($x, 'number-columns-repeated');
        }
    }

    /** @return iterable<\XMLReader> at each element of these names, wherever it stands */
    private static function elements(string $path, string $part, string ...$names): iterable
    {
        $reader = new \XMLReader();
        if (! @$reader->open("zip://{$path}#{$part}", null, LIBXML_NONET)) {
            return;
        }
        while (@$reader->read()) {
            if ($reader->nodeType === \XMLReader::ELEMENT && in_array($reader->localName, $names, true)) {
                yield $reader;
            }
        }
        $reader->close();
    }

    /** A column's letters as its place, from 0. */
    private static function column(string $letters): int
    {
        $at = 0;
        foreach (str_split($letters) as $letter) {
            $at = $at * 26 + ord($letter) - 64;
        }

        return $at - 1;
    }
}
