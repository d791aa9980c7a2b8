<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use Illuminate\Database\Eloquent\Builder;

/** A choice of an account's elements: those named, or those that words and a state find. */
final readonly class Selection
{
    /** @param list<int> $nodes */
    private function __construct(
        private Account $account,
        private array $nodes,
        private string $words,
        private ?string $state,
    ) {}

    /** @param array{nodes?: list<int>, q?: string, state?: string} $over */
    public static function of(Account $account, array $over): self
    {
        return new self(
            $account,
            array_values(array_map(intval(...), $over['nodes'] ?? [])),
            trim($over['q'] ?? ''),
            $over['state'] ?? null,
        );
    }

    /** @return list<int> the elements that were named and are not this account's */
    public function strangers(): array
    {
        return $this->nodes === []
            ? []
            : array_values(
                array_diff(
                    $this->nodes,
                    Node::query()
                        ->where('account_id', $this->account->id)
                        ->whereIntegerInRaw('id', $this->nodes)
                        ->pluck('id')
                        ->all(),
                ),
            );
    }

    /** @return Builder<Node> the elements themselves */
    public function picked(): Builder
    {
        $query = Node::query()->where('nodes.account_id', $this->account->id);
        if ($this->words === '' && $this->state === null) {
            return $this->nodes === []
                ? $query->whereNull('nodes.parent_id')
                : $query->whereIntegerInRaw('nodes.id', $this->nodes);
        }
        if ($this->nodes !== []) {
            $this->under($query, $this->nodes);
        }
        if ($this->words !== '') {
            Finder::narrow($query, $this->account->id, $this->words);
        }

        return $this->state === null ? $query : $query->where('nodes.state', $this->state);
    }

    /** @return Builder<Node> the elements and all below them */
    public function withAllBelow(): Builder
    {
        $query = Node::query()->where('nodes.account_id', $this->account->id);
        if ($this->isEverything()) {
            return $query;
        }
        $this->under($query, $this->ids());

        return $query;
    }

    public function isEverything(): bool
    {
        return $this->nodes === [] && $this->words === '' && $this->state === null;
    }

    /** @return list<int> the elements themselves, for a change's scope */
    public function ids(?int $most = null): array
    {
        return $this->picked()
            ->orderBy('nodes.id')
            ->when($most !== null, static fn ($q) => $q->limit((int) $most))
            ->pluck('nodes.id')
            ->all();
    }

    /**
     * @param Builder<Node> $query
     * @param list<int> $nodes
     */
    private function under(Builder $query, array $nodes): void
    {
        $wide = Branches::below($this->account, $nodes);
        $query->where(
            static fn (Builder $q) => $q
                ->whereIntegerInRaw('nodes.id', $wide)
                ->orWhereIntegerInRaw('nodes.parent_id', $wide),
        );
    }
}
