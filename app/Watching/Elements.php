<?php

namespace App\Watching;

use App\Dialects\Dialects;
use App\Models\Account;
use App\Models\Node;
use Vestigon\Core\Dialect\Role;

/** What stands above ads, by what it is: a group, a campaign, an account. */
final class Elements
{
    /** Where tables have what stands above their lines. */
    public const COLUMNS = ['account_id', 'campaign_id', 'group_id', 'node_id'];

    /** @var array<int, array<string, string>> account → level → role */
    private array $levels = [];

    /** @var array<int, string> account → platform */
    private array $platforms = [];

    public function __construct(private readonly Dialects $dialects) {}

    /**
     * @param list<int> $ads
     * @return array<int, array{account_id: int, campaign_id: int|null, group_id: int|null, node_id: int}> by ad
     */
    public function above(array $ads): array
    {
        $found = $at = [];
        $rows = Node::withTrashed()
            ->whereIntegerInRaw('id', $ads)
            ->toBase()
            ->get(['id', 'account_id', 'parent_id', 'level'])
            ->keyBy('id');
        foreach ($rows as $ad) {
            $found[(int) $ad->id] = [
                'account_id' => (int) $ad->account_id,
                'campaign_id' => null,
                'group_id' => null,
                'node_id' => (int) $ad->id,
            ];
            $at[(int) $ad->id] = $ad->parent_id;
        }
        while (($parents = array_unique(array_filter($at))) !== []) {
            $rows = Node::withTrashed()
                ->whereIntegerInRaw('id', $parents)
                ->toBase()
                ->get(['id', 'account_id', 'parent_id', 'level'])
                ->keyBy('id');
            foreach (array_filter($at) as $ad => $parent) {
                $node = $rows[$parent] ?? null;
                $at[$ad] = $node?->parent_id;
                $column =
                    $node === null
                        ? null
                        : match ($this->role((int) $node->account_id, $node->level)) {
                            Role::Campaign->value => 'campaign_id',
                            Role::Group->value => 'group_id',
                            default => null,
                        };
                if ($column !== null) {
                    $found[$ad][$column] = (int) $node->id;
                }
            }
        }

        return $found;
    }

    public function platform(int $account): string
    {
        $this->role($account, '');

        return $this->platforms[$account];
    }

    private function role(int $account, string $level): ?string
    {
        if (! isset($this->levels[$account])) {
            $of = Account::query()->findOrFail($account, ['id', 'client_id', 'dialect']);
            $this->platforms[$account] = $of->dialect;
            $this->levels[$account] = [];
            foreach ($this->dialects->of($of->client_id, $of->dialect)->levels as $l) {
                $this->levels[$account][$l->id] = $l->role->value;
            }
        }

        return $this->levels[$account][$level] ?? null;
    }
}
