<?php

namespace App\Changes;

use Vestigon\Core\Compile\Told;

/** What pieces that were worked out tell. */
final readonly class ToldPieces
{
    /**
     * @param array<int, ToldStory> $stories by piece
     * @param Told $told of what was decided above them
     * @param int $memory bytes that a process took at most
     */
    public function __construct(public array $stories, public Told $told, public int $memory) {}

    public function and(self $other): self
    {
        return new self(
            $this->stories + $other->stories,
            $this->told->and($other->told),
            max($this->memory, $other->memory),
        );
    }
}
