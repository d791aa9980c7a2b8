<?php

namespace App\Accounts;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;

/** Some nodes of an account and all nodes above them. */
final class Branch
{
    /** @var array<int, list<Node>> the nodes above an ad, by its parent: ads of a group share them */
    private array $above = [];

    /** @var array<int, list<array{text: string, match: string}>> by group */
    private array $keywords = [];

    /**
     * @param array<int, object> $rows rows of the nodes table, by id
     * @param array<int, Node> $nodes the same for the core
     */
    public function __construct(
        private readonly Dialect $dialect,
        private readonly array $rows,
        private readonly array $nodes,
    ) {}

    public function path(int $node): Path
    {
        $parent = $this->rows[$node]->parent_id;
        $above =
            $parent === null
                ? []
                : ($this->above[$parent] ??= array_map(
                    fn (int $id): Node => $this->nodes[$id],
                    $this->ids($parent),
                ));

        return new Path($this->dialect, [...$above, $this->nodes[$node]]);
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

        return $parent === null
            ? []
            : ($this->keywords[$parent] ??= json_decode($this->rows[$parent]->keywords ?? '[]', true));
    }
}
