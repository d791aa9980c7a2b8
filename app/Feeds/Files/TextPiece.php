<?php

namespace App\Feeds\Files;

/** A record of delimited text. */
final readonly class TextPiece implements Piece
{
    /** @param list<string> $columns */
    public function __construct(
        private string $record,
        private array $columns,
        private string $delimiter,
    ) {}

    public function raw(): string
    {
        return $this->record;
    }

    public function cells(): array
    {
        $cells = str_getcsv(rtrim($this->record, "\r\n"), $this->delimiter, '"', '');
        $named = [];
        foreach ($this->columns as $i => $column) {
            $named[$column] ??= (string) ($cells[$i] ?? '');
        }

        return $named;
    }

    public function with(array $links): string
    {
        $text = rtrim($this->record, "\r\n");
        $cells = str_getcsv($text, $this->delimiter, '"', '');
        foreach ($links as $column => $link) {
            $cells[(int) array_search($column, $this->columns, true)] = $link;
        }
        $written = [];
        foreach ($cells as $cell) {
            $written[] = strpbrk((string) $cell, "\"\r\n{$this->delimiter}") === false
                ? $cell
                : '"'.str_replace('"', '""', (string) $cell).'"';
        }

        return implode($this->delimiter, $written).substr($this->record, strlen($text));
    }
}
