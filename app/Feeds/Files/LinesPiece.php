<?php

namespace App\Feeds\Files;

/** A line of NDJSON. */
final readonly class LinesPiece implements Piece
{
    private const FLAGS =
        JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION;

    /** @param array<string, mixed> $read */
    public function __construct(private string $line, private array $read) {}

    public function raw(): string
    {
        return $this->line;
    }

    public function cells(): array
    {
        $cells = [];
        foreach ($this->read as $column => $value) {
            if (is_scalar($value)) {
                $cells[(string) $column] = is_bool($value) ? ($value ? 'true' : 'false') : (string) $value;
            }
        }

        return $cells;
    }

    public function with(array $links): string
    {
        return json_encode((object) array_replace($this->read, $links), self::FLAGS)
            .substr($this->line, strlen(rtrim($this->line, "\r\n")));
    }
}
