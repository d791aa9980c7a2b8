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
        foreach ($links as $column => $link) {
            $cells[(int) array_search($column, $this->columns, true)] = $link;
        }
        $hasQuotes = str_contains($this->record, '"');
        foreach ($hasQuotes ? array_keys($cells) : $this->places($links) as $i) {
            $cells[$i] = $this->written((string) $cells[$i]);
        }

        return implode($this->delimiter, $cells).substr($this->record, strlen(rtrim($this->record, "\r\n")));
    }

    /** @return list<string|null> */
    private function cut(): array
    {
        $text = rtrim($this->record, "\r\n");

        return str_contains($text, '"')
            ? str_getcsv($text, $this->delimiter, '"', '')
            : explode($this->delimiter, $text);
    }

    /**
     * @param array<string, string> $links
     * @return list<int>
     */
    private function places(array $links): array
    {
        return array_map(
            fn (string|int $column): int => (int) array_search((string) $column, $this->columns, true),
            array_keys($links),
        );
    }

    private function written(string $cell): string
    {
        return strpbrk($cell, "\"\r\n{$this->delimiter}") === false ? $cell : '"'.str_replace('"', '""', $cell).'"';
    }
}
