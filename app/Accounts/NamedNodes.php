<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use Vestigon\Core\Account\Node as CoreNode;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Naming\Pattern;
use Vestigon\Core\Naming\Patterns;

/** Gives an account's elements the parts of their names. */
final class NamedNodes
{
    private readonly bool $asksTypes;

    /** @var array<int, array{string|null, int|null}>|null node above the ads → its type, and what it stands under */
    private ?array $above = null;

    public function __construct(
        private readonly Account $account,
        private readonly Dialect $dialect,
        private readonly Patterns $patterns,
    ) {
        $this->asksTypes = array_filter($patterns->all, static fn (Pattern $p): bool => $p->for->types !== null) !== [];
    }

    /** @param object $row of the nodes table */
    public function named(object $row, CoreNode $node): CoreNode
    {
        return $this->patterns->all === []
            ? $node
            : $this->patterns->named($node, $this->dialect, $this->type($row));
    }

    /** The type of the campaign that it is or stands under, where a pattern asks for it. */
    public function type(object $row): ?string
    {
        [$type, $parent] = [$row->type, $row->parent_id];
        if (! $this->asksTypes) {
            return $type;
        }
        $this->above ??= $this->above();
        while ($type === null && $parent !== null) {
            [$type, $parent] = $this->above[$parent] ?? [null, null];
        }

        return $type;
    }

    /** @return array<int, array{string|null, int|null}> */
    private function above(): array
    {
        $above = [];
        foreach (
            Node::withTrashed()
                ->where(['account_id' => $this->account->id, 'is_ad' => false])
                ->toBase()
                ->select('id', 'type', 'parent_id')
                ->cursor() as $row
        ) {
            $above[$row->id] = [$row->type, $row->parent_id];
        }

        return $above;
    }
}
