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
use App\Models\Node;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Sends a change's writes in batches and notes what came of each.
 *
 * Every step can be repeated: a batch keeps the key it was first sent under, and the platform carries a key out once. Where it does not
 * say what it did, we look.
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
     * @return Collection<int, ChangeWrite>|null
     */
    public function unanswered(): ?Collection
    {
        $key = $this->change->writes()->where('state', 'sent')->value('batch');

        return $key === null ? null : $this->change->writes()->where('batch', $key)->where('state', 'sent')->with('node')->get();
    }

    /** @return Collection<int, ChangeWrite>|null the next writes, each node once; null: none is left */
    public function next(): ?Collection
    {
        $stage = array_values(array_filter($this->stages, fn (string $s): bool => $this->change->writes()->reorder()->where(['stage' => $s, 'state' => 'waiting'])->exists()))[0] ?? null;
        if ($stage === null) {
            return null;
        }
        $seen = [];
        $batch = $this->change->writes()->where(['stage' => $stage, 'state' => 'waiting'])->limit($this->connector->batchSize())->with('node')->get()
            ->takeWhile(static function (ChangeWrite $w) use (&$seen): bool {
                $new = ! isset($seen[$w->node_id]);
                $seen[$w->node_id] = true;

                return $new;
            });
        $key = "change-{$this->change->id}-".$batch[0]->position.'-'.bin2hex(random_bytes(4));
        ChangeWrite::query()->whereIn('id', $batch->pluck('id'))->update(['state' => 'sent', 'batch' => $key]);

        return $batch->each(static fn (ChangeWrite $w) => $w->forceFill(['state' => 'sent', 'batch' => $key])->syncOriginal());
    }

    /**
     * @param Collection<int, ChangeWrite> $batch
     *
     * @throws PlatformTrouble the batch stays as sent
     */
    public function send(Collection $batch): void
    {
        $batch = $batch->values();
        $answers = $this->connector->write(
            $this->change->account->link,
            $this->change->account->external_id,
            (string) $batch[0]->batch,
            $batch->map(static fn (ChangeWrite $w): RemoteUpdate => new RemoteUpdate($w->node->external_id, $w->node->version, $w->kind, $w->name, $w->after))->all(),
        );
        $doubtful = $batch->filter(static fn (ChangeWrite $w, int $i): bool => in_array($answers[$i]->state, ['missing', 'stale'], true));
        $remotes = $doubtful->isEmpty() ? [] : $this->remotes($doubtful->pluck('node.external_id'));
        foreach ($doubtful as $i => $write) {
            $answers[$i] = self::looked($write, $answers[$i], $remotes[$write->node->external_id] ?? null);
        }
        $this->note($batch, $answers);
    }

    /**
     * @param Collection<int, ChangeWrite> $batch
     * @param array<int, RemoteAnswer> $answers in the order of the batch
     */
    public function note(Collection $batch, array $answers): void
    {
        DB::transaction(function () use ($batch, $answers): void {
            $done = $batch->filter(static fn (ChangeWrite $w, int $i): bool => $answers[$i]->state === 'done');
            $this->noteDone($done, $done->map(static fn (ChangeWrite $w, int $i): ?int => $answers[$i]->version));
            foreach ($batch as $i => $write) {
                $this->noteUndone($write, $answers[$i]);
            }
        });
    }

    /**
     * @param Collection<int, string> $ids of nodes, as the platform has them
     * @return array<string, RemoteNode> by id
     */
    public function remotes(Collection $ids): array
    {
        $nodes = $this->connector->read($this->change->account->link, $this->change->account->external_id, $ids->unique()->values()->all());

        return array_combine(array_map(static fn (RemoteNode $n): string => $n->id, $nodes), $nodes);
    }

    /** The platform has the text already: the write was made, whatever became of the answer. */
    private static function looked(ChangeWrite $write, RemoteAnswer $answer, ?RemoteNode $remote): RemoteAnswer
    {
        return $remote !== null && $remote->text($write->kind, $write->name) === $write->after ? new RemoteAnswer('done', '', $remote->version) : $answer;
    }

    /**
     * @param Collection<int, ChangeWrite> $done
     * @param Collection<int, int|null> $versions null: the platform did not say
     */
    private function noteDone(Collection $done, Collection $versions): void
    {
        if ($done->isEmpty()) {
            return;
        }
        ChangeWrite::query()->whereIn('id', $done->pluck('id'))->update(['state' => 'written', 'problem' => null]);
        self::versions($done->filter(static fn (ChangeWrite $w, int $i): bool => $versions[$i] !== null)->map(static fn (ChangeWrite $w, int $i): array => [$w->node_id, (int) $versions[$i]])->values()->all());
        LiveTexts::setAll($done->map(static fn (ChangeWrite $w): array => [$w->node_id, $w->kind, $w->name, $w->after])->values()->all());
        DB::table('ledger')->insertOrIgnore($done->map(fn (ChangeWrite $w): array => self::entry($this->change, $w, $w->before, $w->after))->values()->all());
    }

    private function noteUndone(ChangeWrite $write, RemoteAnswer $answer): void
    {
        if ($answer->state === 'missing' && $write->turn < self::MOST_TURNS) {
            $write->update(['state' => 'waiting', 'batch' => null, 'turn' => $write->turn + 1]);
        } elseif ($answer->state !== 'done') {
            $write->update(['state' => 'failed', 'problem' => match ($answer->state) {
                'stale' => "It has changed on the platform meanwhile ({$answer->message}). Import, then draft again.",
                'missing' => 'The platform was sent it '.self::MOST_TURNS.' times and never said what became of it.',
                default => "The platform refused it: {$answer->message}.",
            }]);
        }
    }

    /**
     * One line of the ledger.
     *
     * @return array<string, mixed>
     */
    public static function entry(Change $change, ChangeWrite $write, ?string $before, ?string $after, bool $found = false): array
    {
        return [
            'client_id' => $change->client_id, 'account_id' => $change->account_id, 'node_id' => $write->node_id, 'kind' => $write->kind, 'name' => $write->name, 'before' => $before, 'after' => $after,
            'user_id' => $change->applied_by, 'change_id' => $change->id, 'write_id' => $write->id, 'turn' => $write->turn, 'found' => $found, 'at' => now(),
        ];
    }

    /** @param list<array{int, int}> $versions of nodes, by id */
    public static function versions(array $versions): void
    {
        foreach (array_chunk($versions, 500) as $some) {
            DB::update('update nodes set version = case id '.str_repeat('when ? then ? ', count($some)).'end where id in ('.implode(',', array_fill(0, count($some), '?')).')', [...array_merge(...$some), ...array_column($some, 0)]);
        }
    }
}
