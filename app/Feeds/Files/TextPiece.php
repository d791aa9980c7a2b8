<?php

namespace App\Feeds\Files;

/** A record of delimited text. */
final class TextPiece implements Piece
{
    /** @var list<string|null>|null cut when first asked for */
    private ?array $cut = null;

    /** @param list<string> $columns */
    public function __construct(
        private readonly string $record,
        private readonly array $columns,
        private readonly string $delimiter,
    ) {}

    public function raw(): string
    {
        return $this->record;
    }

    public function cells(): array
    {
        $named = [];
        foreach ($this->cut() as $i => $cell) {
            if (isset($this->columns[$i])) {
                $named[$this->columns[$i]] ??= (string) $cell;
            }
        }

        return $named;
    }

    public function with(array $links): string
    {
        $cells = $this->cut();
        $places = [];
        foreach ($links as $column => $link) {
            $place = (int) array_search($column, $this->columns, true);
            $cells[$place] = $link;
            $places[$place] = true;
        }
        // cells that were quoted are so again; of a record without quotes only what is new may have to be
        $marks = "\"\r\n{$this->delimiter}";
        foreach (str_contains($this->record, '"') ? $cells : array_intersect_key($cells, $places) as $i => $cell) {
            if (strpbrk((string) $cell, $marks) !== false) {
                $cells[$i] = '"'.str_replace('"', '""', (string) $cell).'"';
            }
        }

        return implode($this->delimiter, $cells).substr($this->record, strlen(rtrim($this->record, "\r\n")));
    }

    /** @return list<string|null> */
    private function cut(): array
    {
        $text = rtrim($this->record, "\r\n");

        return $this->cut ??= str_contains($text, '"')
            ? str_getcsv($text, $this->delimiter, '"', '')
            : explode($this->delimiter, $text);
    }
}
