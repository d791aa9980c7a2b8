<?php

namespace App\Accounts;

use App\Connectors\RemoteAccount;
use App\Models\Account;
use App\Models\Import;
use App\Models\Node;
use App\Models\Text;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;

/**
 * What an account does not have any more is kept as gone, with its texts and all that was written to it.
 *
 * Only an import that is known to be whole lets anything go: it brought the account itself and no less than the
 * platform announced.
 */
final readonly class Departures
{
    private const CHUNK = 5000;

    public function __construct(private Account $account, private Import $import, private string $platform) {}

    /**
     * Elements of which the platform itself says that they are gone.
     *
     * @param list<string> $numbers
     */
    public static function letGoNamed(Account $account, string $level, array $numbers): void
    {
        Node::query()
            ->where(['account_id' => $account->id, 'level' => $level])
            ->whereIn('external_id', $numbers)
            ->update(['gone_at' => now()->format(LiveTexts::PRECISE)]);
    }

    /** @return list<string> what a person should know */
    public function after(RemoteAccount $remote): array
    {
        $apart = DB::table('set_apart')->where([
            'account_id' => $this->account->id,
            'import_id' => $this->import->id,
        ]);
        $aparts = (clone $apart)->distinct()->count(DB::raw("concat(level, ' ', external_id)"));
        $seen = Node::query()->where(['account_id' => $this->account->id, 'import_id' => $this->import->id]);
        $came = (clone $seen)->count() + $aparts;
        $notes = [];
        if ($aparts > 0) {
            $first = $apart->orderBy('id')->first();
            $notes[] =
                number_format($aparts)
                ." elements of {$this->account->name} could not be taken over and are set apart, such as "
                ."{$first?->level} {$first?->external_id}: {$first?->why}.";
        }
        if ($came < $remote->nodes || ! (clone $seen)->whereNull('parent_id')->exists()) {
            $notes[] =
                "{$this->platform} announced "
                .number_format($remote->nodes)
                ." elements of {$this->account->name} and delivered "
                .number_format($came)
                .'. What was missing is kept as it was; import again.';

            return $notes;
        }
        $gone = $remote->lost === null ? $this->letGo(null) : $this->letGoOf($remote->lost);

        return $gone === 0
            ? $notes
            : [
                ...$notes,
                number_format($gone)
                ." elements of {$this->account->name} are not on {$this->platform} any more. They are kept as gone.",
            ];
    }

    /**
     * Takes elements in again that had gone: their texts of then were live until they went.
     *
     * @param list<int> $nodes
     */
    public static function takeIn(array $nodes): void
    {
        if ($nodes === []) {
            return;
        }
        Text::query()
            ->join('nodes', 'nodes.id', 'texts.node_id')
            ->whereIntegerInRaw('texts.node_id', $nodes)
            ->whereNull('texts.until')
            ->update(['texts.until' => DB::raw('greatest(texts.since, nodes.gone_at)')]);
        Node::withTrashed()
            ->whereIntegerInRaw('id', $nodes)
            ->update(['gone_at' => null]);
    }

    /**
     * What is lost, with all that stands below it.
     *
     * @param \Closure(Builder<Node>): Builder<Node> $lost
     * @return int how many
     */
    private function letGoOf(\Closure $lost): int
    {
        $gone = $this->letGo($lost);
        do {
            $below = $this->letGo(
                fn (Builder $q): Builder => $q->whereIn(
                    'parent_id',
                    DB::query()
                        ->select('id')
                        ->fromSub(
                            Node::onlyTrashed()->where('account_id', $this->account->id)->select('id'),
                            'gone',
                        ),
                ),
            );
            $gone += $below;
        } while ($below > 0);

        return $gone;
    }

    /**
     * @param (\Closure(Builder<Node>): Builder<Node>)|null $which null: all that did not come
     * @return int how many
     */
    private function letGo(?\Closure $which): int
    {
        $gone = 0;
        do {
            $now = Node::query()
                ->where('account_id', $this->account->id)
                ->where('import_id', '<>', $this->import->id)
                ->when($which !== null, $which)
                ->orderBy('id')
                ->limit(self::CHUNK)
                ->toBase()
                ->update(['gone_at' => now()->format(LiveTexts::PRECISE)]);
            $gone += $now;
        } while ($now === self::CHUNK);

        return $gone;
    }
}
