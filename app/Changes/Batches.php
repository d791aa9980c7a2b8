<?php

namespace App\Changes;

use App\Accounts\LiveTexts;
use App\Connectors\Connector;
use App\Connectors\PlatformTrouble;
use App\Connectors\RemoteAnswer;
use App\Connectors\RemoteNode;
use App\Connectors\RemoteUpdate;
use App\Models\Change;
use App\Models\ChangeWrite;
use App\Models\WriteState;
use App\Support\Bulk;
use Illuminate\Support\Facades\DB;

/**
 * Sends a change's writes in batches and notes what came of each.
 *
 * Every step can be repeated: a batch keeps the key it was first sent under, and the platform carries a key out once.
 * Where it does not say what it did, we look.
 */
final readonly class Batches
{
    /** A write that the platform again and again says nothing of is given up. */
    private const MOST_TURNS = 5;

    /** @param list<string> $stages */
    public function __construct(private Change $change, private Connector $connector, private array $stages) {}

    /**
     * A batch that was sent and not answered, to be sent again as it was.
     *
     * @return non-empty-list<Due>|null
     */
    public function unanswered(): ?array
    {
        $key = $this->change->writes()->where('state', WriteState::Sent)->value('batch');

        return $key === null
            ? null
            : (Due::all(Due::of($this->change)->where(['change_writes.state' => WriteState::Sent, 'batch' => $key]))
                ?: null);
    }

    /** @return non-empty-list<Due>|null the next writes, all of one stage and each node once; null: none is left */
    public function next(): ?array
    {
        $batch = [];
        foreach (
            Due::all(
                Due::of($this->change)
                    ->whereIn('stage', $this->stages)
                    ->where('change_writes.state', WriteState::Waiting)
                    ->limit($this->connector->batchSize()),
            ) as $due
        ) {
            if (isset($batch[$due->node]) || $due->stage !== (reset($batch) ?: $due)->stage) {
                break;
            }
            $batch[$due->node] = $due;
        }
        if ($batch === []) {
            return null;
        }
        $batch = array_values($batch);
        $key = "change-{$this->change->id}-{$batch[0]->position}-".bin2hex(random_bytes(4));
        // those that a person has left out meanwhile stay out
        ChangeWrite::query()
            ->whereIntegerInRaw('id', self::ids($batch))
            ->where('state', WriteState::Waiting)
            ->update(['state' => WriteState::Sent, 'batch' => $key]);

        return Due::all(Due::of($this->change)->where(['change_writes.state' => WriteState::Sent, 'batch' => $key]))
            ?: $this->next();
    }

    /**
     * @param non-empty-list<Due> $batch
     *
     * @throws PlatformTrouble the batch stays as sent
     */
    public function send(array $batch): void
    {
        $answers = $this->connector->write(
            $this->change->account->link,
            $this->change->account->external_id,
            (string) $batch[0]->batch,
            array_map(
                static fn (Due $d): RemoteUpdate => new RemoteUpdate(
                    $d->externalId,
                    $d->version,
                    $d->kind,
                    $d->name,
                    $d->after,
                ),
                $batch,
            ),
        );
        $doubtful = array_filter(
            $batch,
            static fn (int $i): bool => in_array($answers[$i]->state, ['missing', 'stale'], true),
            ARRAY_FILTER_USE_KEY,
        );
        $remotes = $doubtful === [] ? [] : $this->remotes($doubtful);
        foreach ($doubtful as $i => $due) {
            $answers[$i] = self::looked($due, $answers[$i], $remotes[$due->externalId] ?? null);
        }
        $this->note($batch, $answers);
    }

    /**
     * @param list<Due> $batch
     * @param array<int, RemoteAnswer> $answers in the order of the batch
     */
    public function note(array $batch, array $answers): void
    {
        DB::transaction(function () use ($batch, $answers): void {
            $this->noteDone(
                array_filter(
                    $batch,
                    static fn (int $i): bool => $answers[$i]->state === 'done',
                    ARRAY_FILTER_USE_KEY,
                ),
                $answers,
            );
            foreach ($batch as $i => $due) {
                self::noteUndone($due, $answers[$i]);
            }
        });
    }

    /**
     * @param array<int, Due> $writes
     * @return array<string, RemoteNode> their elements, as the platform has them, by its id
     */
    public function remotes(array $writes): array
    {
        $nodes = $this->connector->read(
            $this->change->account->link,
            $this->change->account->external_id,
            array_values(array_unique(array_map(static fn (Due $d): string => $d->externalId, $writes))),
        );

        return array_combine(array_map(static fn (RemoteNode $n): string => $n->id, $nodes), $nodes);
    }

    /** The platform has the text already: the write was made, whatever became of the answer. */
    private static function looked(Due $due, RemoteAnswer $answer, ?RemoteNode $remote): RemoteAnswer
    {
        return $remote !== null && $remote->text($due->kind, $due->name) === $due->after
            ? new RemoteAnswer('done', '', $remote->version)
            : $answer;
    }

    /**
     * @param array<int, Due> $done
     * @param array<int, RemoteAnswer> $answers
     */
    private function noteDone(array $done, array $answers): void
    {
        if ($done === []) {
            return;
        }
        ChangeWrite::query()
            ->whereIntegerInRaw('id', self::ids($done))
            ->update(['state' => WriteState::Written, 'problem' => null]);
        $versions = [];
        foreach ($done as $i => $due) {
            if ($answers[$i]->version !== null) {
                // not every platform says
                $versions[] = [$due->node, $answers[$i]->version];
            }
        }
        self::versions($versions);
        LiveTexts::setAll(
            array_map(static fn (Due $d): array => [$d->node, $d->kind, $d->name, $d->after], array_values($done)),
        );
        $this->enter(self::ids($done));
    }

    private static function noteUndone(Due $due, RemoteAnswer $answer): void
    {
        if ($answer->state === 'done') {
            return;
        }
        ChangeWrite::query()
            ->whereKey($due->id)
            ->update(
                $answer->state === 'missing' && $due->turn < self::MOST_TURNS
                    ? ['state' => WriteState::Waiting, 'batch' => null, 'turn' => $due->turn + 1]
                    : [
                        'state' => WriteState::Failed,
                        'problem' => match ($answer->state) {
                            'stale' => "It has changed on the platform meanwhile ({$answer->message}). Import, then "
                                .'draft '
                                .'again.',
                            'missing' => 'The platform was sent it '
                                .self::MOST_TURNS
                                .' times and never said what became of it.',
                            default => "The platform refused it: {$answer->message}.",
                        },
                    ],
            );
    }

    /**
     * Enters writes that were made in the ledger. Each turn of a write is entered once.
     *
     * @param list<int> $writes ids
     */
    private function enter(array $writes): void
    {
        DB::insert(
            'insert ignore into ledger
                (client_id, account_id, node_id, kind, name, `before`, `after`, user_id, change_id, write_id, turn,
                 found, at)
            select ?, ?, node_id, kind, name, `before`, `after`, ?, change_id, id, turn, false, ?
            from change_writes where id in ('
                .implode(',', $writes)
                .')',
            [
                $this->change->client_id,
                $this->change->account_id,
                $this->change->applied_by,
                now()->format('Y-m-d H:i:s.v'),
            ],
        );
    }

    /** Enters what the platform turned out to hold in place of what was written. */
    public function enterFound(Due $due, ?string $holds): void
    {
        DB::table('ledger')->insertOrIgnore([
            'client_id' => $this->change->client_id,
            'account_id' => $this->change->account_id,
            'node_id' => $due->node,
            'kind' => $due->kind,
            'name' => $due->name,
            'before' => $due->after,
            'after' => $holds,
            'user_id' => $this->change->applied_by,
            'change_id' => $this->change->id,
            'write_id' => $due->id,
            'turn' => $due->turn,
            'found' => true,
            'at' => now(),
        ]);
    }

    /** @param list<array{int, int}> $versions of nodes, by id */
    public static function versions(array $versions): void
    {
        Bulk::update(
            'nodes',
            ['version' => 'int unsigned'],
            array_map(static fn (array $v): array => ['id' => $v[0], 'version' => $v[1]], $versions),
        );
    }

    /**
     * @param array<int, Due> $writes
     * @return list<int>
     */
    private static function ids(array $writes): array
    {
        return array_values(array_map(static fn (Due $d): int => $d->id, $writes));
    }
}
