<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** What stands in the cells of a sheet: trimmed, without what a spreadsheet needs to take it as text. */
final readonly class Cells
{
    private const BLANK = '--';

    /** What a spreadsheet takes for a formula or a number, however many apostrophes stand before it. */
    private const TAKEN = "/^'*(?:[=+\-@\\t\\r]|(?<=')\d)/";

    /** @var array<string, true> */
    private array $blank;

    /** @param list<string> $blank words that stand for nothing */
    public function __construct(array $blank = [])
    {
        $this->blank = array_fill_keys([self::BLANK, ...$blank], true);
    }

    /** @param string|int|float|null $cell as it was read */
    public function text(string|int|float|null $cell): string
    {
        if ($cell === null) {
            return '';
        }
        $text = is_string($cell) ? self::trimmed($cell) : self::digits($cell);
        if (isset($text[1]) && $text[0] === "'" && preg_match("/^'+[\d=+\-@]/", $text) === 1) {
            $text = substr($text, 1);
        }

        return isset($this->blank[$text]) ? '' : $text;
    }

    /** A text that a spreadsheet takes as text, and that is read back as what it was. */
    public static function harmless(string $text): string
    {
        return preg_match(self::TAKEN, $text) === 1 ? "'{$text}" : $text;
    }

    private static function trimmed(string $text): string
    {
        $isPlain = $text !== '' && ctype_graph($text[0]) && ctype_graph($text[strlen($text) - 1]);

        return $isPlain ? $text : (string) preg_replace('/^[\s\p{Z}\x{FEFF}]+|[\s\p{Z}\x{FEFF}]+$/u', '', $text);
    }

    private static function digits(int|float $number): string
    {
        return is_float($number) && $number === floor($number) && abs($number) < 1e15
            ? number_format($number, 0, '', '')
            : (string) $number;
    }
}
