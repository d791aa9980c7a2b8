<?php

namespace App\Feeds\Files;

/** What stands between items: it is handed on as it is. */
final readonly class Between implements Piece
{
    public function __construct(private string $text) {}

    public function raw(): string
    {
        return $this->text;
    }

    public function cells(): ?array
    {
        return null;
    }

    public function with(array $links): string
    {
        return $this->text;
    }
}
