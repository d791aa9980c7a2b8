<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** What became of a row. */
final readonly class Row
{
    /**
     * @param Said|null $said null: the row is left out
     * @param list<Problem> $problems
     */
    public function __construct(public RowSort $sort, public ?Said $said = null, public array $problems = []) {}
}
