<?php

namespace App\Jobs;

use App\Accounts\Trees;
use App\Changes\Story;
use App\Models\Change;
use App\Models\ChangeWrite;
use App\Models\Plan;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Carrier;
use Vestigon\Core\Compile\Compiled;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Existing;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\SlotKind;

/** Works out a change's writes and its story. */
final class DraftChange implements ShouldQueue
{
    use Queueable;

    public int $timeout = 1800;

    public int $tries = 2;

    public function __construct(public int $change) {}

    public function handle(): void
    {
        $change = Change::query()->with('account')->findOrFail($this->change);
        if ($change->status !== 'drafting') {
            return;
        }
        $plan = Plan::query()->where(['client_id' => $change->client_id, 'revision' => $change->plan_revision])->firstOrFail()->read();
        $before = Trees::whole($change->account);
        $compiled = ($change->policy['by'] ?? 'plan') === 'hand'
            ? new Compiled($this->byHand($change, $before), [], [], [])
            : Compiler::compile($before, $plan, new Policy(Existing::from($change->policy['existing']), Carrier::from($change->policy['carrier'])));
        $changed = [];
        foreach ($compiled->writes as $write) {
            $node = $changed[$write->node] ?? $before->nodes[$write->node];
            $changed[$write->node] = $write->slot === null ? $node->withCustom((string) $write->custom, $write->after) : $node->withSlot($write->slot, $write->after);
        }
        $after = $before->with($changed);
        $story = (new Story($before, $after, $plan, $compiled, ($change->policy['by'] ?? 'plan') === 'hand'))->tell();
        DB::transaction(function () use ($change, $compiled, $story): void {
            $change->writes()->delete();
            foreach (array_chunk($compiled->writes, 500, true) as $writes) {
                ChangeWrite::query()->insert(array_map(static fn (Write $w, int $i): array => [
                    'change_id' => $change->id, 'position' => $i, 'node_id' => (int) $w->node, 'kind' => $w->slot->value ?? 'custom', 'name' => $w->custom ?? '', 'before' => $w->before, 'after' => $w->after,
                ], $writes, array_keys($writes)));
            }
            $change->update(['status' => 'ready', 'story' => $story]);
        });
    }

    /** @return list<Write> the texts that a person chose, with what stands there now */
    private function byHand(Change $change, Account $before): array
    {
        $writes = [];
        foreach ($change->writes()->get() as $write) {
            $key = (string) $write->node_id;
            $node = $before->nodes[$key];
            $new = $write->kind === 'custom'
                ? Write::custom($key, $write->name, $node->custom[$write->name] ?? null, $write->after)
                : Write::slot($key, SlotKind::from($write->kind), $node->slots[$write->kind] ?? null, $write->after);
            if ($new->before !== $new->after) {
                $writes[] = $new;
            }
        }

        return $writes;
    }

    public function failed(?\Throwable $e): void
    {
        Change::query()->whereKey($this->change)->where('status', 'drafting')->update(['status' => 'failed', 'finished_at' => now(), 'problem' => 'The change could not be worked out, by a fault of ours. Nothing was written; draft it again.']);
    }
}
