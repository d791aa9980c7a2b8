<?php

namespace App\Changes;

use App\Models\Change;
use App\Models\ChangeWrite;
use App\Support\Bulk;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Compile\Stage;
use Vestigon\Core\Compile\Staged;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Slot;

/**
 * The writes of a change while it is worked out: they stand behind those that it had before, piece by piece, until it
 * is offered with them.
 */
final readonly class DraftedWrites
{
    /** Their places begin here. */
    private const FROM = 1_000_000_000;

    /** A piece has room for so many. */
    private const ROOM = 1_000_000;

    private const AT_ONCE = 2000;

    public function __construct(private Change $change, private DraftTurn $turn) {}

    /** @return Builder<ChangeWrite> those that the change had when it was worked out before */
    public static function before(Change $change): Builder
    {
        return ChangeWrite::query()->where('change_id', $change->id)->where('position', '<', self::FROM);
    }

    public function clear(): void
    {
        $this->turn->during(fn () => $this->drafted()->delete());
    }

    public function count(): int
    {
        return $this->drafted()->count();
    }

    /** @param list<Write> $writes of a piece, in the order to apply */
    public function add(int $piece, array $writes): void
    {
        if (count($writes) > self::ROOM) {
            throw new \LogicException('a piece has more writes than there are places for them');
        }
        $at = self::FROM + $piece * self::ROOM;
        foreach (array_chunk($writes, self::AT_ONCE) as $some) {
            $this->turn->during(fn () => $this->put($some, $at, Stage::Rest));
            $at += self::AT_ONCE;
        }
    }

    /**
     * @param list<string> $nodes
     * @return list<Write> those on some elements, and what the account switches; the least risky first
     */
    public function on(array $nodes, Dialect $dialect): array
    {
        return $this->about($nodes)
            ->orderByRaw(...self::bySafety($dialect))
            ->get()
            ->map(
                static fn (ChangeWrite $w): Write => Place::written(
                    (string) $w->node_id,
                    $w->kind,
                    $w->name,
                    $w->before,
                    $w->after,
                ),
            )
            ->values()
            ->all();
    }

    /**
     * They take the place of those that the change had: the trial's first, then the least risky, what the trial leaves
     * last.
     *
     * @param list<string> $nodes the elements that a trial writes to
     * @param Staged $staged the writes on those, and what the account switches
     */
    public function settle(array $nodes, Staged $staged, Dialect $dialect): void
    {
        $this->about($nodes)->delete();
        self::before($this->change)->delete();
        $at = [];
        foreach ($staged->writes as [$write, $stage]) {
            $at[$stage->value][] = $write;
        }
        $first = $at[Stage::Trial->value] ?? [];
        $this->put($at[Stage::Rest->value] ?? [], self::FROM - self::ROOM, Stage::Rest);
        [$order, $kinds] = self::bySafety($dialect);
        $rest = DB::update(
            "update change_writes w join (select id, row_number() over (order by {$order}) - 1 as place from "
                .'change_writes where change_id = ?) n on n.id = w.id set w.position = n.place + ?',
            [...$kinds, $this->change->id, count($first)],
        );
        $this->put($first, 0, Stage::Trial);
        $this->put($at[Stage::After->value] ?? [], count($first) + $rest, Stage::After);
    }

    /** @return Builder<ChangeWrite> */
    private function drafted(): Builder
    {
        return ChangeWrite::query()->where('change_id', $this->change->id)->where('position', '>=', self::FROM);
    }

    /**
     * @param list<string> $nodes
     * @return Builder<ChangeWrite>
     */
    private function about(array $nodes): Builder
    {
        return $this->drafted()->where(
            static fn (Builder $w) => $w
                ->where('kind', 'setting')
                ->orWhereIntegerInRaw('node_id', array_map(intval(...), $nodes)),
        );
    }

    /** @return array{literal-string, list<string>} as BySafety has it, with what it is told by */
    private static function bySafety(Dialect $dialect): array
    {
        $reviewed = array_filter($dialect->slots, static fn (Slot $s): bool => $s->reviewed);
        $kinds = array_map(static fn (Slot $s): string => $s->kind->value, array_values($reviewed));

        return [
            "case kind when 'setting' then 0 when 'custom' then if(`after` is null, 4, 1) else "
                .'if(find_in_set(kind, ?) > 0, 3, 2) end, position',
            [implode(',', $kinds)],
        ];
    }

    /** @param list<Write> $writes */
    private function put(array $writes, int $from, Stage $stage): void
    {
        $rows = [];
        foreach ($writes as $i => $write) {
            $rows[] = [
                'change_id' => $this->change->id,
                'position' => $from + $i,
                'stage' => $stage->value,
                'node_id' => (int) $write->node,
                ...Place::of($write),
                'before' => $write->before,
                'after' => $write->after,
            ];
        }
        Bulk::insert('change_writes', $rows);
    }
}
