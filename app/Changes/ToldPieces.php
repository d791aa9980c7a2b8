<?php

namespace App\Changes;

use Vestigon\Core\Compile\Objections;

/** What pieces that were worked out tell. */
final readonly class ToldPieces
{
    /**
     * @param array<int, ToldStory> $stories by piece
     * @param Objections $objections to what was decided above them
     * @param int $memory bytes that a process took at most
     */
    public function __construct(public array $stories, public Objections $objections, public int $memory) {}

    public function and(self $other): self
    {
        return new self(
            $this->stories + $other->stories,
            $this->objections->and($other->objections),
            max($this->memory, $other->memory),
        );
    }
}
