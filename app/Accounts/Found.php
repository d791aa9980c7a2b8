<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Finding;
use App\Models\Node;
use Vestigon\Core\Findings\Finding as CoreFinding;
use Vestigon\Core\Proof\Tally;

/** Keeps what was found in an account, and shows findings as the interface wants them. */
final class Found
{
    private const MOST = 500;

    /**
     * Within a transaction of the caller's.
     *
     * @param list<Tally> $tallies the worst first
     */
    public static function keep(Account $account, array $tallies): void
    {
        $tallies = array_slice($tallies, 0, self::MOST);
        $external = array_values(
            array_unique(
                array_filter(
                    array_map(static fn (Tally $t): ?string => $t->finding->node?->id, $tallies),
                    is_string(...),
                ),
            ),
        );
        $ids = [];
        foreach (
            Node::query()
                ->where('account_id', $account->id)
                ->whereIn('external_id', $external)
                ->get(['id', 'level', 'external_id']) as $node
        ) {
            $ids["{$node->level} {$node->external_id}"] = $node->id;
        }
        $rows = array_map(
            static function (Tally $t, int $i) use ($account, $ids): array {
                $f = $t->finding;
                $fix = $f->fix === null || Misfit::whyOfText((string) $f->fix->text) !== null ? null : $f->fix;

                return [
                    'account_id' => $account->id,
                    'position' => $i,
                    'code' => $f->code,
                    'severity' => $f->severity->value,
                    'node_id' => $f->node === null ? null : $ids["{$f->node->level} {$f->node->id}"] ?? null,
                    'kind' => $f->custom !== null ? 'custom' : $f->slot?->value,
                    'name' => mb_substr($f->custom ?? '', 0, Misfit::LONGEST_NAME),
                    'at' => $f->at,
                    'length' => $f->length,
                    'key' => $f->key === null ? null : mb_substr(mb_scrub($f->key), 0, 255),
                    'reason' => mb_substr(mb_scrub($f->reason), 0, 2000),
                    'fix_says' => $fix === null ? null : mb_substr(mb_scrub($fix->says), 0, 255),
                    'fix_text' => $fix?->text,
                    'count' => $t->count,
                ];
            },
            $tallies,
            array_keys($tallies),
        );
        Finding::query()->where('account_id', $account->id)->delete();
        foreach (array_chunk($rows, 200) as $some) {
            Finding::query()->insert($some);
        }
    }

    /**
     * Findings of one ad.
     *
     * @param list<CoreFinding> $findings
     * @param array<string, int> $nodes "level id" → database id, of the nodes on its path
     * @return list<array<string, mixed>>
     */
    public static function show(array $findings, array $nodes): array
    {
        return array_map(
            static fn (CoreFinding $f): array => [
                'code' => $f->code,
                'severity' => $f->severity->value,
                'node' => $f->node === null ? null : $nodes["{$f->node->level} {$f->node->id}"] ?? null,
                'level' => $f->node?->level,
                'name' => $f->node?->name,
                'slot' => $f->custom !== null ? 'custom' : $f->slot?->value,
                'custom' => $f->custom,
                'at' => $f->at,
                'length' => $f->length,
                'key' => $f->key,
                'reason' => $f->reason,
                'fix' => $f->fix === null || $f->node === null
                        ? null
                        : ['says' => $f->fix->says, 'text' => $f->fix->text],
            ],
            $findings,
        );
    }
}
