<?php

namespace App\Sheets\Files;

use Vestigon\Core\Document\UnusableInput;

/** Opens a file by what it holds, whatever it is called: text, workbooks, and either of them packed. */
final class Opening
{
    private const PIECE = 1 << 16;

    private const OLD_OR_LOCKED = "\xD0\xCF\x11\xE0";

    /**
     * @param string $path where it is
     * @param string $name as the person has it
     * @param Form|null $told what a person has said of text in it
     * @return list<Table>
     *
     * @throws UnusableInput
     */
    public static function tables(string $path, string $name, ?Form $told = null): array
    {
        $start = (string) file_get_contents($path, length: 8);

        return match (true) {
            $start === '' => throw new UnusableInput("{$name} is empty"),
            str_starts_with($start, "\x1F\x8B") => self::unpacked($path, $name, $told),
            str_starts_with($start, "PK\x03\x04") => self::zipped($path, $name, $told),
            str_starts_with($start, self::OLD_OR_LOCKED) => throw new UnusableInput(
                "{$name} is a workbook that is locked with a password, or of an old kind (XLS). Save it without a "
                    .'password as XLSX, ODS or CSV',
            ),
            str_starts_with($start, '%PDF'), str_starts_with($start, "\x89PNG") => throw new UnusableInput(
                "{$name} is no table. Export CSV, XLSX or ODS",
            ),
            default => [AccountTable::of($path, $name) ?? TextTable::of($path, $name, $told)],
        };
    }

    /** @return list<Table> */
    private static function unpacked(string $path, string $name, ?Form $told): array
    {
        $to = "{$path}.unpacked";
        if (! is_file($to)) {
            self::copy(
                gzopen($path, 'rb') ?: throw new UnusableInput("{$name} can't be unpacked"),
                $to,
                $name,
            );
        }

        return self::tables($to, preg_replace('/\.gz$/i', '', $name) ?? $name, $told);
    }

    /** @return list<Table> */
    private static function zipped(string $path, string $name, ?Form $told): array
    {
        $zip = new \ZipArchive();
        if ($zip->open($path, \ZipArchive::RDONLY) !== true) {
            throw new UnusableInput("{$name} is broken. Export it anew");
        }
        try {
            self::boundUnpacked($zip, $name);
            if ($zip->locateName('xl/workbook.xml') !== false) {
                return WorkbookTable::all('xlsx', $path, $name);
            }
            if ($zip->locateName('content.xml') !== false) {
                return WorkbookTable::all('ods', $path, $name);
            }
            $tables = [];
            for ($i = 0; $i < $zip->numFiles; $i++) {
                $part = (string) $zip->getNameIndex($i);
                $stream = str_ends_with($part, '/') ? false : $zip->getStreamIndex($i);
                if ($stream !== false && preg_match('~(^|/)(\.|__MACOSX/)~', $part) !== 1) {
                    $to = "{$path}.part{$i}";
                    is_file($to) ? fclose($stream) : self::copy($stream, $to, $part);
                    array_push($tables, ...self::tables($to, basename($part), $told));
                }
            }

            return $tables === [] ? throw new UnusableInput("{$name} holds no tables") : $tables;
        } finally {
            $zip->close();
        }
    }

    /** Unpacks every part once, counting and keeping nothing: what a part says of its own size may be a lie. */
    private static function boundUnpacked(\ZipArchive $zip, string $name): void
    {
        $all = 0;
        for ($i = 0; $i < $zip->numFiles; $i++) {
            $part = $zip->getStreamIndex($i);
            if ($part === false) {
                throw new UnusableInput("{$name} is locked with a password, or broken. Save it without one");
            }
            while (! feof($part)) {
                $some = (string) fread($part, self::PIECE);
                $all += strlen($some);
                if ($all > config('limits.unpacked')) {
                    throw new UnusableInput("{$name} unpacks to more than ".(config('limits.unpacked') >> 20).' MB');
                }
                if ($some === '') {
                    break;
                }
            }
            fclose($part);
        }
    }

    /** @param resource $from */
    private static function copy($from, string $to, string $name): void
    {
        $out = fopen("{$to}.new", 'wb') ?: throw new \RuntimeException("{$to} can't be written");
        $all = 0;
        try {
            while (! feof($from)) {
                $some = fread($from, self::PIECE);
                if ($some === false || $some === '') {
                    break;
                }
                $all += strlen($some);
                if ($all > config('limits.unpacked')) {
                    throw new UnusableInput("{$name} unpacks to more than ".(config('limits.unpacked') >> 20).' MB');
                }
                fwrite($out, $some);
            }
        } finally {
            fclose($from);
            fclose($out);
        }
        rename("{$to}.new", $to);
    }
}
