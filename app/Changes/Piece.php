<?php

namespace App\Changes;

/** A piece of what a change is about. */
final readonly class Piece
{
    /** @param list<int> $tops its widest elements */
    public function __construct(public int $number, public array $tops) {}
}
