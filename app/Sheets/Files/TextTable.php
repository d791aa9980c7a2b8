<?php

namespace App\Sheets\Files;

use Vestigon\Core\Document\UnusableInput;

/**
 * Delimited text (RFC 4180): which encoding, delimiter and ends of lines it has is found by looking at it. Text that is
 * no UTF-8 is taken for Windows-1252, as browsers do (WHATWG Encoding Standard).
 */
final readonly class TextTable implements Table
{
    private const DELIMITERS = [',', ';', "\t", '|'];

    private const RECORDS = 50;

    /** What a file may begin with to say its encoding (Unicode Standard, byte order mark). */
    private const MARKS = ["\xEF\xBB\xBF" => 'UTF-8', "\xFF\xFE" => 'UTF-16LE', "\xFE\xFF" => 'UTF-16BE'];

    private const PIECE = 1 << 16;

    /** A cell that is longer was never meant to be one. */
    private const LONGEST_CELL = 1 << 20;

    private function __construct(
        private string $path,
        private string $name,
        private string $encoding,
        private string $delimiter,
        private int $skips,
        private bool $loneReturns,
    ) {}

    /**
     * @param Form|null $told what a person has said of it; what that leaves open is found
     *
     * @throws UnusableInput it is no text, or not as it was told to be
     */
    public static function of(string $path, string $name, ?Form $told = null): self
    {
        $start = (string) file_get_contents($path, length: self::PIECE);
        [$encoding, $skips] = self::encoding($path, $start, $name);
        $encoding = self::told($told?->encoding, $encoding, $name);
        $text = self::utf8(substr($start, $skips), $encoding);
        $loneReturns = str_contains($text, "\r") && ! str_contains($text, "\n");
        $table = new self($path, $name, $encoding, ',', $skips, $loneReturns);
        $line = strtok($text, "\r\n");
        $named = $line !== false && preg_match('/^"?sep=(.)"?$/i', $line, $m) === 1 ? $m[1] : null;

        $delimiter = $told->delimiter ?? $named ?? $table->likeliest();

        return new self($path, $name, $encoding, $delimiter, $skips, $loneReturns);
    }

    public function title(): string
    {
        return (string) preg_replace('/\.[a-z]{1,4}$/i', '', $this->name);
    }

    public function form(): Form
    {
        return new Form(
            'csv',
            $this->delimiter,
            $this->encoding,
            $this->encoding === 'Windows-1252'
                ? 'It is no UTF-8, so it was read as Windows-1252. Look at letters with accents.'
                : null,
        );
    }

    public function rows(): iterable
    {
        return $this->cut($this->delimiter);
    }

    /** @return iterable<list<string>> */
    private function cut(string $delimiter): iterable
    {
        $in = $this->open();
        try {
            for ($row = 1; ($cells = fgetcsv($in, null, $delimiter, '"', '')) !== false; $row++) {
                if ($row === 1 && preg_match('/^sep=/i', (string) $cells[0]) === 1) {
                    $row--;

                    continue;
                }
                TooWide::refuse(count($cells), $row, $this->name);
                foreach ($cells as $at => $cell) {
                    if ($cell !== null && strlen($cell) > self::LONGEST_CELL) {
                        throw new UnusableInput(
                            "row {$row} of {$this->name} has a cell of more than ".(self::LONGEST_CELL >> 20)
                                .' MB. Perhaps a quote is opened there and never closed',
                        );
                    }
                    if ($this->encoding === 'Windows-1252' && $cell !== null) {
                        $cells[$at] = self::utf8($cell, $this->encoding);
                    }
                }
                yield $cells;
            }
        } finally {
            fclose($in);
        }
    }

    /** @return resource at its first row, as UTF-8 (or as bytes, where each letter is one) */
    private function open()
    {
        $in = fopen($this->path, 'rb') ?: throw new \RuntimeException("{$this->path} can't be read");
        fseek($in, $this->skips);
        if (str_starts_with($this->encoding, 'UTF-16')) {
            stream_filter_append($in, "convert.iconv.{$this->encoding}.UTF-8", STREAM_FILTER_READ);
        }
        if ($this->loneReturns) {
            LoneReturns::on($in);
        }

        return $in;
    }

    /** The delimiter that gives the same number of cells in the most of the first records. */
    private function likeliest(): string
    {
        $best = ',';
        $most = 0;
        foreach (self::DELIMITERS as $delimiter) {
            $widths = [];
            try {
                foreach ($this->cut($delimiter) as $i => $cells) {
                    if ($i >= self::RECORDS) {
                        break;
                    }
                    $widths[count($cells)] = ($widths[count($cells)] ?? 0) + 1;
                }
            } catch (UnusableInput) {
                continue; // cut like this it can't be read; perhaps it can otherwise
            }
            unset($widths[1]);
            if ($widths !== [] && max($widths) > $most) {
                [$best, $most] = [$delimiter, max($widths)];
            }
        }

        return $best;
    }

    /** Only the two that can be taken for each other are a person's choice. */
    private static function told(?string $told, string $found, string $name): string
    {
        return match (true) {
            $told === null, $told === $found => $found,
            $told === 'Windows-1252' && $found === 'UTF-8' => $told,
            default => throw new UnusableInput("{$name} can't be {$told}: its bytes are {$found}"),
        };
    }

    /** @return array{string, int} the encoding, and the bytes of its mark */
    private static function encoding(string $path, string $start, string $name): array
    {
        foreach (self::MARKS as $mark => $encoding) {
            if (str_starts_with($start, $mark)) {
                return [$encoding, strlen($mark)];
            }
        }
        $zeros = [0, 0];
        for ($i = 0, $n = min(strlen($start), 2000) & ~1; $i < $n; $i++) {
            $zeros[$i & 1] += (int) ($start[$i] === "\0");
        }
        $most = intdiv($n, 2);

        return match (true) {
            $most > 0 && $zeros[1] > $most * 0.8 && $zeros[0] === 0 => ['UTF-16LE', 0],
            $most > 0 && $zeros[0] > $most * 0.8 && $zeros[1] === 0 => ['UTF-16BE', 0],
            str_contains($start, "\0") => throw new UnusableInput("{$name} is no table. Export CSV, XLSX or ODS"),
            self::isUtf8($path) => ['UTF-8', 0],
            default => ['Windows-1252', 0],
        };
    }

    private static function isUtf8(string $path): bool
    {
        $in = fopen($path, 'rb') ?: throw new \RuntimeException("{$path} can't be read");
        $rest = '';
        while (! feof($in)) {
            $some = $rest.fread($in, self::PIECE);
            // a letter may be cut off at the end of a piece
            $cut = feof($in) ? strlen($some) : self::lastWhole($some);
            if (! mb_check_encoding(substr($some, 0, $cut), 'UTF-8')) {
                fclose($in);

                return false;
            }
            $rest = substr($some, $cut);
        }
        fclose($in);

        return $rest === '';
    }

    /** Bytes up to where the last letter begins, if that one may go on in the next piece. */
    private static function lastWhole(string $text): int
    {
        for ($at = strlen($text) - 1, $least = max(0, strlen($text) - 4); $at >= $least; $at--) {
            if ((ord($text[$at]) & 0xC0) === 0xC0) {
                return $at;
            }
            if (ord($text[$at]) < 0x80) {
                break;
            }
        }

        return strlen($text);
    }

    private static function utf8(string $text, string $encoding): string
    {
        return match ($encoding) {
            'UTF-8' => $text,
            'Windows-1252' => Windows1252::utf8($text),
            default => mb_convert_encoding($text, 'UTF-8', $encoding),
        };
    }
}
