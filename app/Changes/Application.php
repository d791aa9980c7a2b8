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
 * Carries a change out: looks whether anything has moved, writes in batches, reads back and compares.
 *
 * Every step can be repeated: a batch keeps the key it was first sent under, and the platform carries a key out once.
 */
final readonly class Application
{
    public function __construct(private Change $change, private Connector $connector) {}

    /** @throws PlatformTrouble nothing is lost: what was written is noted, the rest waits */
    public function run(): void
    {
        if (! $this->started() && ($moved = $this->moved()) !== []) {
            $this->end('stopped', count($moved).' of the places to write have changed on the platform since the last import ('.implode(', ', array_slice($moved, 0, 3)).'). Nothing was written. Import the account, then draft the change again.');

            return;
        }
        while (($batch = $this->nextBatch()) !== null) {
            $this->send($batch);
        }
        $this->readBack();
        $failed = $this->change->writes()->reorder()->whereIn('state', ['failed', 'differs'])->count();
        $this->end($failed === 0 ? 'done' : 'partly', $failed === 0 ? null : "{$failed} of the writes did not take; each says why. All others did.");
    }

    private function started(): bool
    {
        return $this->change->writes()->reorder()->where('state', '<>', 'waiting')->exists();
    }

    /** @return list<string> names of nodes that are not what they were when the change was worked out */
    private function moved(): array
    {
        $moved = [];
        $this->change->writes()->with('node')->chunk(500, function (Collection $writes) use (&$moved): void {
            $remotes = $this->remotes($writes);
            foreach ($writes as $write) {
                $remote = $remotes[$write->node->external_id] ?? null;
                if ($remote === null || $remote->version !== $write->node->version || $remote->text($write->kind, $write->name) !== $write->before) {
                    $moved[$write->node_id] = $write->node->name;
                }
            }
        });

        return array_values($moved);
    }

    /** @return Collection<int, ChangeWrite>|null writes of one batch, each node once; a batch that was sent and not answered comes first */
    private function nextBatch(): ?Collection
    {
        $sent = $this->change->writes()->where('state', 'sent')->value('batch');
        if ($sent !== null) {
            return $this->change->writes()->where('batch', $sent)->where('state', 'sent')->with('node')->get();
        }
        $waiting = $this->change->writes()->where('state', 'waiting')->limit($this->connector->batchSize())->with('node')->get();
        $seen = [];
        $batch = $waiting->takeWhile(static function (ChangeWrite $w) use (&$seen): bool {
            $new = ! isset($seen[$w->node_id]);
            $seen[$w->node_id] = true;

            return $new;
        });
        if ($batch->isEmpty()) {
            return null;
        }
        $key = "change-{$this->change->id}-".$batch->first()->position.'-'.bin2hex(random_bytes(4));
        ChangeWrite::query()->whereIn('id', $batch->pluck('id'))->update(['state' => 'sent', 'batch' => $key]);

        return $batch->each(static fn (ChangeWrite $w) => $w->setAttribute('batch', $key));
    }

    /** @param Collection<int, ChangeWrite> $batch */
    private function send(Collection $batch): void
    {
        $batch = $batch->values();
        $answers = $this->connector->write(
            $this->change->account->link,
            $this->change->account->external_id,
            (string) $batch[0]->batch,
            $batch->map(static fn (ChangeWrite $w): RemoteUpdate => new RemoteUpdate($w->node->external_id, $w->node->version, $w->kind, $w->name, $w->after))->all(),
        );
        DB::transaction(function () use ($batch, $answers): void {
            $now = now();
            foreach ($batch as $i => $write) {
                $this->note($write, $answers[$i]);
            }
            DB::table('ledger')->insertOrIgnore($batch->filter(static fn (ChangeWrite $w, int $i): bool => $answers[$i]->state === 'done')->map(fn (ChangeWrite $w): array => [
                'client_id' => $this->change->client_id, 'account_id' => $this->change->account_id, 'node_id' => $w->node_id, 'kind' => $w->kind, 'name' => $w->name,
                'before' => $w->before, 'after' => $w->after, 'user_id' => $this->change->applied_by, 'change_id' => $this->change->id, 'write_id' => $w->id, 'at' => $now,
            ])->values()->all());
        });
    }

    private function note(ChangeWrite $write, RemoteAnswer $answer): void
    {
        if ($answer->state !== 'done') {
            $write->update(['state' => 'failed', 'problem' => $answer->state === 'stale' ? "It has changed on the platform meanwhile ({$answer->message}). Import, then draft again." : "The platform refused it: {$answer->message}."]);

            return;
        }
        $write->update(['state' => 'written', 'problem' => null]);
        Node::query()->whereKey($write->node_id)->update(['version' => $answer->version]);
        LiveTexts::set($write->node_id, $write->kind, $write->name, $write->after);
    }

    /** What the platform has now must be what was written. */
    private function readBack(): void
    {
        $this->change->writes()->where('state', 'written')->with('node')->chunkById(500, function (Collection $writes): void {
            $remotes = $this->remotes($writes);
            [$same, $differs] = $writes->partition(static fn (ChangeWrite $w): bool => ($remotes[$w->node->external_id] ?? null)?->text($w->kind, $w->name) === $w->after);
            ChangeWrite::query()->whereIn('id', $same->pluck('id'))->update(['state' => 'verified']);
            ChangeWrite::query()->whereIn('id', $differs->pluck('id'))->update(['state' => 'differs', 'problem' => 'Read back, the platform has another text.']);
        });
    }

    /**
     * @param Collection<int, ChangeWrite> $writes
     * @return array<string, RemoteNode> by id
     */
    private function remotes(Collection $writes): array
    {
        $nodes = $this->connector->read($this->change->account->link, $this->change->account->external_id, $writes->pluck('node.external_id')->unique()->values()->all());

        return array_combine(array_map(static fn (RemoteNode $n): string => $n->id, $nodes), $nodes);
    }

    private function end(string $status, ?string $problem): void
    {
        $this->change->update(['status' => $status, 'problem' => $problem, 'finished_at' => now()]);
    }
}
