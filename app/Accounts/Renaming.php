<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use App\Support\Bulk;
use Illuminate\Support\Facades\DB;

/** Notes names that elements were given on their platform; what they were called before is kept. */
final class Renaming
{
    /** @param array<int, string> $names by node id, all of one account */
    public static function of(array $names): void
    {
        if ($names === []) {
            return;
        }
        DB::transaction(static function () use ($names): void {
            $known = Node::withTrashed()
                ->whereIntegerInRaw('id', array_keys($names))
                ->orderBy('id')
                ->toBase()
                ->lockForUpdate()
                ->get(['id', 'account_id', 'name', 'published_name'])
                ->filter(static fn (object $n): bool => $n->name !== $names[$n->id])
                ->keyBy('id');
            if ($known->isEmpty()) {
                return;
            }
            $freezes = Trees::dialect(Account::query()->findOrFail($known->first()->account_id))->namesFreeze;
            $now = $known->map(
                static fn (object $n): object => (object) [
                    ...(array) $n,
                    'name' => $names[$n->id],
                    'published_name' => $freezes ? $n->published_name ?? $n->name : $n->published_name,
                ],
            );
            Bulk::update(
                'nodes',
                ['name' => 'varchar(255)', 'published_name' => 'varchar(255)'],
                $now
                    ->map(static fn (object $n): array => [
                        'id' => $n->id,
                        'name' => $n->name,
                        'published_name' => $n->published_name,
                    ])
                    ->values()
                    ->all(),
            );
            NameWords::drop($now->keys()->all());
            NameWords::add($now->all());
            FormerNames::keep($known, $now, now());
        }, 5);
    }
}
