<?php

namespace App\Ledger;

use App\Accounts\Branches;
use App\Accounts\LiveTexts;
use App\Accounts\SampleClick;
use App\Accounts\Show;
use App\Accounts\StoredTexts;
use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Node;
use Carbon\CarbonInterface;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Trace\Route;

/**
 * What was live at a moment: texts and names are kept with the time in which they were. Places in the
 * tree are today's.
 */
final class Past
{
    /** @return array<string, mixed> what an ad sent then, and each text that counted on its path with who wrote it */
    public static function of(Node $ad, CarbonInterface $at): array
    {
        $account = $ad->account;
        $branch = Branches::at($account, $at, $ad->id);
        $path = $branch->path($ad->id);
        $trace = Route::once(
            $path,
            SampleClick::of($path, $branch->keywords($ad->id)),
            StoredTexts::settings($account, $at),
            Trees::hops($account),
        );
        $texts = DB::table('texts')
            ->join('nodes', 'nodes.id', 'texts.node_id')
            ->whereIn('node_id', $branch->ids($ad->id))
            ->where('since', '<=', $at->format(LiveTexts::PRECISE))
            ->where(
                static fn ($q) => $q->whereNull('until')->orWhere('until', '>', $at->format(LiveTexts::PRECISE)),
            )
            ->orderBy('nodes.depth')
            ->orderBy('texts.kind')
            ->get([
                'texts.node_id',
                'nodes.name as node_name',
                'nodes.level',
                'texts.kind',
                'texts.name',
                'texts.text',
                'texts.since',
                'texts.until',
            ]);
        $written = DB::table('ledger')
            ->join('users', 'users.id', 'ledger.user_id')
            ->whereIn('node_id', $branch->ids($ad->id))
            ->where('at', '<=', $at->format(LiveTexts::PRECISE))
            ->orderBy('ledger.id')
            ->get(['node_id', 'kind', 'ledger.name', 'after', 'change_id', 'users.name as who'])
            ->keyBy(static fn (object $l): string => "{$l->node_id} {$l->kind} {$l->name}");

        return [
            'at' => $at->toIso8601String(),
            'goneAt' => $ad->gone_at === null || $ad->gone_at->greaterThan($at)
                ? null
                : $ad->gone_at->toIso8601String(),
            'ribbon' => Show::ribbon($trace),
            'arrival' => $trace->arrival,
            'texts' => $texts
                ->map(static function (object $t) use ($written): array {
                    $by = $written["{$t->node_id} {$t->kind} {$t->name}"] ?? null;
                    $ours = $by !== null && $by->after === $t->text;

                    return [
                        'node' => $t->node_id,
                        'name' => $t->node_name,
                        'level' => $t->level,
                        'kind' => $t->kind,
                        'custom' => $t->name,
                        'text' => $t->text,
                        'since' => self::iso($t->since),
                        'until' => $t->until === null ? null : self::iso($t->until),
                        'change' => $ours ? $by->change_id : null,
                        'by' => $ours ? $by->who : null,
                    ];
                })
                ->all(),
        ];
    }

    /**
     * @return array{total: int, from: string, items: list<array<string, mixed>>} places whose text was another at the
     *     one moment than at the other; from: the moment it was compared with, as nothing is known before the first
     *     import
     */
    public static function differences(
        Account $account,
        CarbonInterface $from,
        CarbonInterface $to,
        int $offset,
    ): array {
        [$from, $to] = array_map(
            static fn (CarbonInterface $at): CarbonInterface => $at->max($account->known_since),
            [$from, $to],
        );
        // a text was live until it ended, or until its element had gone
        $live = static fn (string $at): string => "max(if(
            t.since <= :{$at}1 and coalesce(t.until, n.gone_at, '9999-12-31') > :{$at}2, t.text, null
        ))";
        $places = "select t.node_id, t.kind, t.name, {$live('f')} was, {$live('t')} becomes
            from nodes n join texts t on t.node_id = n.id
            where n.account_id = :account and t.since <= :late
                and coalesce(t.until, n.gone_at, '9999-12-31') > :early
            group by t.node_id, t.kind, t.name having not ({$live('g')} <=> {$live('u')})";
        [$f, $t] = [$from->format(LiveTexts::PRECISE), $to->format(LiveTexts::PRECISE)];
        $values = [
            'account' => $account->id,
            'early' => min($f, $t),
            'late' => max($f, $t),
            'f1' => $f,
            'f2' => $f,
            'g1' => $f,
            'g2' => $f,
            't1' => $t,
            't2' => $t,
            'u1' => $t,
            'u2' => $t,
        ];
        $rows = DB::select(
            "select p.*, n.name node_name, n.level from ({$places}) p join nodes n on n.id = p.node_id order by "
                ."n.depth, n.position, p.kind, p.name limit 200 offset {$offset}",
            $values,
        );

        return [
            'total' => (int) DB::scalar("select count(*) from ({$places}) p", $values),
            'from' => $from->toIso8601String(),
            'items' => array_map(
                static fn (object $r): array => [
                    'node' => $r->node_id,
                    'name' => $r->node_name,
                    'level' => $r->level,
                    'kind' => $r->kind,
                    'custom' => $r->name,
                    'before' => $r->was,
                    'after' => $r->becomes,
                ],
                $rows,
            ),
        ];
    }

    private static function iso(string $at): string
    {
        return (string) \Carbon\CarbonImmutable::parse($at, 'UTC')->toIso8601String();
    }
}
