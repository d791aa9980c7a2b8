<?php

namespace App\Accounts;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;

/** Some nodes of an account and all nodes above them. */
final readonly class Branch
{
    /**
     * @param array<int, object> $rows rows of the nodes table, by id
     * @param array<int, Node> $nodes the same for the core
     */
    public function __construct(private Dialect $dialect, private array $rows, private array $nodes) {}

    public function path(int $node): Path
    {
        return new Path($this->dialect, array_map(fn (int $id): Node => $this->nodes[$id], $this->ids($node)));
    }

    /** @return non-empty-list<int> the ids from the account down to the node */
    public function ids(int $node): array
    {
        $ids = [];
        for ($at = $node; $at !== null; $at = $this->rows[$at]->parent_id) {
            $ids[] = $at;
        }

        return array_reverse($ids);
    }

    /** @return list<array{text: string, match: string}> the keywords that an ad is shown for: its group's */
    public function keywords(int $ad): array
    {
        $parent = $this->rows[$ad]->parent_id;

        return $parent === null ? [] : json_decode($this->rows[$parent]->keywords ?? '[]', true);
    }
}
