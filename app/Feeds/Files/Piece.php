<?php

namespace App\Feeds\Files;

/** A stretch of a product list's file: an item, or what stands between items. */
interface Piece
{
    /** As it stands in the file. */
    public function raw(): string;

    /** @return array<string, string>|null column → cell; null: it is no item */
    public function cells(): ?array;

    /** @param array<string, string> $links column → link, in place of those that stand there; all else stays */
    public function with(array $links): string;
}
