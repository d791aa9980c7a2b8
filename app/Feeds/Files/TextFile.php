<?php

namespace App\Feeds\Files;

use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Feed\Form;

/** Delimited text (RFC 4180) in UTF-8, its columns named in the first record. */
final readonly class TextFile implements ItemsFile
{
    private const MARK = "\xEF\xBB\xBF";

    private const DELIMITERS = ["\t", ';', '|', ','];

    public function __construct(private string $path) {}

    public function form(): Form
    {
        return Form::Delimited;
    }

    public function ending(): string
    {
        return $this->delimiter() === "\t" ? 'tsv' : 'csv';
    }

    public function pieces(): iterable
    {
        $delimiter = $this->delimiter();
        $columns = null;
        foreach ($this->records() as $record) {
            if ($columns === null) {
                $heading = str_starts_with($record, self::MARK) ? substr($record, strlen(self::MARK)) : $record;
                $columns = array_map(
                    static fn (?string $c): string => trim((string) $c),
                    str_getcsv(rtrim($heading, "\r\n"), $delimiter, '"', ''),
                );
                if (count($columns) > config('limits.feed_columns')) {
                    throw new UnusableInput(
                        'the list has '.count($columns).' columns; '.config('limits.feed_columns').' are the most',
                    );
                }
                yield new Between($record);
            } elseif (trim($record) === '') {
                yield new Between($record);
            } else {
                yield new TextPiece($record, $columns, $delimiter);
            }
        }
    }

    /** @return iterable<string> each with the end of its line */
    private function records(): iterable
    {
        $in = fopen($this->path, 'rb') ?: throw new \RuntimeException("{$this->path} can't be read");
        try {
            for ($row = 1; ($record = fgets($in)) !== false; $row++) {
                while (substr_count($record, '"') % 2 === 1) {
                    $more = strlen($record) > self::LONGEST ? false : fgets($in);
                    if ($more === false) {
                        throw new UnusableInput("record {$row} opens a quote that is never closed");
                    }
                    $record .= $more;
                }
                yield $record;
            }
        } finally {
            fclose($in);
        }
    }

    /** The one that the first record has most of. */
    private function delimiter(): string
    {
        foreach ($this->records() as $record) {
            $times = array_map(static fn (string $d): int => substr_count($record, $d), self::DELIMITERS);

            return self::DELIMITERS[(int) array_search(max($times), $times, true)];
        }

        return ',';
    }
}
