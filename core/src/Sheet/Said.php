<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** All that one row says. */
final readonly class Said
{
    /**
     * @param int $row as a spreadsheet counts it
     * @param non-empty-list<Step> $steps what it names, the widest first, its own element last
     * @param Facts $facts of its own element
     * @param array{string, string}|null $keyword text and match: of the nearest group at or above it
     */
    public function __construct(
        public int $table,
        public int $row,
        public array $steps,
        public Facts $facts,
        public ?array $keyword = null,
        public ?Figures $figures = null,
    ) {}

    public function own(): Step
    {
        return $this->steps[count($this->steps) - 1];
    }
}
