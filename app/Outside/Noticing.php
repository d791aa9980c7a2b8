<?php

namespace App\Outside;

use App\Accounts\LiveTexts;
use App\Models\Account;
use App\Models\ChangeStatus;
use App\Models\ChangeWrite;
use App\Models\Import;
use App\Models\Node;
use App\Models\OutsideChange;
use App\Models\OutsideState;
use Carbon\CarbonImmutable;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Keeps what an import finds to be otherwise than it was known to be.
 *
 * A place has one undecided change at a time: from what stood there before the first of them to what stands there now;
 * where that is the same again, it is undone. Of what is new or gone, only the widest element is kept.
 */
final class Noticing
{
    /** @var array<int, true> elements that are new in this import, ads left out */
    private array $new = [];

    private readonly CarbonImmutable $since;

    private readonly bool $isFirst;

    public function __construct(private readonly Account $account, private readonly Import $import)
    {
        $this->since = CarbonImmutable::now();
        $this->isFirst = $account->known_since === null;
    }

    /**
     * @param Collection<int, object> $known rows of nodes by id, as they were: id, name, type, standing, parent_id,
     *     gone_at
     * @param Collection<int, object> $now the same elements and those that are new, as they are
     * @param list<array{int, string, string, string|null, string|null}> $texts that changed: node, kind, name, before,
     *     after
     */
    public function chunk(Collection $known, Collection $now, array $texts): void
    {
        if ($this->isFirst) {
            return;
        }
        $found = array_filter(
            $texts,
            static fn (array $t): bool => isset($known[$t[0]]) && $known[$t[0]]->gone_at === null,
        );
        $moved = [];
        foreach ($now as $node) {
            $was = $known[$node->id] ?? null;
            if ($was === null || $was->gone_at !== null) {
                $isBelow = isset($this->new[$node->parent_id ?? 0]);
                if (! $node->is_ad) {
                    $this->new[$node->id] = true;
                }
                if (! $isBelow) {
                    $found[] = [$node->id, $was === null ? 'new' : 'back', '', null, null];
                }

                continue;
            }
            foreach (['name', 'type', 'standing'] as $what) {
                if ($was->{$what} !== $node->{$what}) {
                    $found[] = [$node->id, $what, '', $was->{$what}, $node->{$what}];
                }
            }
            if ($was->parent_id !== $node->parent_id) {
                $moved[] = [$node->id, $was->parent_id, $node->parent_id];
            }
        }
        $this->keep([...array_values($found), ...self::places($moved)]);
    }

    /** What has gone since this import began: the widest of it. */
    public function departures(): void
    {
        if ($this->isFirst) {
            return;
        }
        $gone = Node::withTrashed()
            ->from('nodes as n')
            ->leftJoin('nodes as above', 'above.id', 'n.parent_id')
            ->where('n.account_id', $this->account->id)
            ->where('n.gone_at', '>=', $this->since->format(LiveTexts::PRECISE))
            ->where(
                fn ($q) => $q
                    ->whereNull('above.gone_at')
                    ->orWhere('above.gone_at', '<', $this->since->format(LiveTexts::PRECISE)),
            )
            ->withoutGlobalScopes()
            ->toBase()
            ->orderBy('n.id')
            ->select('n.id')
            ->lazy(1000);
        foreach ($gone->chunk(500) as $some) {
            $this->keep($some->map(static fn (object $n): array => [$n->id, 'gone', '', null, null])->all());
        }
    }

    /**
     * @param list<array{int, int|null, int|null}> $moved node, what it stood under, what it stands under
     * @return list<array{int, string, string, string|null, string|null}>
     */
    private static function places(array $moved): array
    {
        if ($moved === []) {
            return [];
        }
        $names = Node::withTrashed()
            ->whereIntegerInRaw('id', array_filter([...array_column($moved, 1), ...array_column($moved, 2)]))
            ->pluck('name', 'id');

        return array_map(
            static fn (array $m): array => [$m[0], 'place', '', $names[$m[1]] ?? null, $names[$m[2]] ?? null],
            $moved,
        );
    }

    /** @param list<array{int, string, string, string|null, string|null}> $found */
    private function keep(array $found): void
    {
        $found = $found === [] ? [] : self::withoutOurs($found);
        if ($found === []) {
            return;
        }
        $place = static fn (int $node, string $kind, string $name): string => "{$node} {$kind} {$name}";
        $undecided = [];
        foreach (
            OutsideChange::query()
                ->whereIntegerInRaw('node_id', array_column($found, 0))
                ->undecided()
                ->get() as $one
        ) {
            $undecided[$place($one->node_id, $one->kind, $one->name)] = $one;
        }
        $at = CarbonImmutable::now()->format(LiveTexts::PRECISE);
        $rows = [];
        foreach ($found as [$node, $kind, $name, $before, $after]) {
            $undoes = ['gone' => ['new', 'back'], 'back' => ['gone']][$kind] ?? [];
            $undone = null;
            foreach ($undoes as $other) {
                $undone ??= $undecided[$place($node, $other, '')] ?? null;
            }
            $earlier = $undecided[$place($node, $kind, $name)] ?? null;
            if ($undone !== null || ($earlier !== null && $earlier->before === $after)) {
                ($undone ?? $earlier)?->update(['state' => OutsideState::Undone, 'decided_at' => $at]);
            } elseif ($earlier !== null) {
                $earlier->update([
                    'after' => $after,
                    'import_id' => $this->import->id,
                    'found_at' => $at,
                    'judged' => false,
                    'state' => OutsideState::Open,
                ]);
            } else {
                $rows[] = [
                    'account_id' => $this->account->id,
                    'node_id' => $node,
                    'import_id' => $this->import->id,
                    'kind' => $kind,
                    'name' => $name,
                    'before' => $before,
                    'after' => $after,
                    'found_at' => $at,
                ];
            }
        }
        foreach (array_chunk($rows, 1000) as $some) {
            DB::table('outside_changes')->insert($some);
        }
    }

    /**
     * A change of ours that is under way may be on the platform already, and not be known to be.
     *
     * @param list<array{int, string, string, string|null, string|null}> $found
     * @return list<array{int, string, string, string|null, string|null}>
     */
    private static function withoutOurs(array $found): array
    {
        $ours = [];
        foreach (
            ChangeWrite::query()
                ->join('changes', 'changes.id', 'change_writes.change_id')
                ->whereIn('changes.status', ChangeStatus::underWay())
                ->whereIntegerInRaw('node_id', array_column($found, 0))
                ->toBase()
                ->get(['node_id', 'kind', 'name', 'after']) as $write
        ) {
            $ours[json_encode([$write->node_id, $write->kind, $write->name, $write->after])] = true;
        }

        return array_values(
            array_filter(
                $found,
                static fn (array $f): bool => ! isset($ours[json_encode([$f[0], $f[1], $f[2], $f[4]])]),
            ),
        );
    }
}
