<?php

namespace App\Changes;

use App\Accounts\LiveTexts;
use App\Connectors\RemoteNode;
use App\Models\Change;
use App\Models\ChangeWrite;
use App\Models\Node;
use App\Models\WriteState;
use Illuminate\Support\Facades\DB;

/** Reads back what was written. What the platform holds is what we note: if it is another text, the ledger says so. */
final class ReadingBack
{
    private const AT_ONCE = 500;

    /** As many as one request takes. */
    private const ONE_REQUEST = 200;

    /** @var array<int, true> elements with places that the change writes twice: those of the trial */
    private readonly array $twice;

    /** Written since we last read back. */
    private int $written = 0;

    public function __construct(private readonly Change $change, private readonly Batches $batches)
    {
        $this->twice = array_fill_keys($change->writes()->where('stage', 'after')->pluck('node_id')->all(), true);
    }

    /**
     * Reads some back as soon as there are enough of them for one request.
     *
     * @param int $more that were written just now
     */
    public function keepUp(int $more): void
    {
        $this->written += $more;
        if ($this->written < self::ONE_REQUEST) {
            return;
        }
        $this->written = 0;
        $writes = $this->written(self::ONE_REQUEST);
        if (count($writes) === self::ONE_REQUEST) {
            $this->compare($writes);
        }
    }

    /** @param \Closure(): bool $goOn asked after each chunk */
    public function run(\Closure $goOn): bool
    {
        $going = true;
        while ($going && ($writes = $this->written(self::AT_ONCE)) !== []) {
            $this->compare($writes);
            $going = $goOn();
        }

        return $going;
    }

    /** @return list<Due> of what was written */
    private function written(int $most): array
    {
        return Due::all(Due::of($this->change)->where('change_writes.state', WriteState::Written)->limit($most));
    }

    /** @param list<Due> $writes */
    private function compare(array $writes): void
    {
        $remotes = $this->batches->remotes($writes);
        $later = $this->writtenTwice($writes);
        $same = static fn (Due $d): bool => ($later[$d->place()] ?? 0) > $d->position
            || ($remotes[$d->externalId] ?? null)?->text($d->kind, $d->name) === $d->after;
        DB::transaction(function () use ($writes, $same, $remotes): void {
            ChangeWrite::query()
                ->whereIntegerInRaw(
                    'id',
                    array_map(static fn (Due $d): int => $d->id, array_filter($writes, $same)),
                )
                ->update(['state' => WriteState::Verified]);
            $versions = $standings = [];
            foreach ($writes as $due) {
                $remote = $remotes[$due->externalId] ?? null;
                if (! $same($due)) {
                    $this->noteOther($due, $remote);
                }
                if ($remote !== null && $remote->version !== $due->version) {
                    $versions[$due->node] = [$due->node, $remote->version];
                }
                if ($remote !== null && $remote->standing !== $due->standing) {
                    $standings[$remote->standing][] = $due->node;
                }
            }
            Batches::versions(array_values($versions));
            foreach ($standings as $standing => $nodes) {
                Node::query()
                    ->whereIntegerInRaw('id', $nodes)
                    ->update(['standing' => $standing]);
            }
        });
    }

    private function noteOther(Due $due, ?RemoteNode $remote): void
    {
        $holds = $remote?->text($due->kind, $due->name);
        ChangeWrite::query()
            ->whereKey($due->id)
            ->update([
                'state' => WriteState::Differs,
                'problem' => $remote === null
                        ? 'Read back, the platform does not have the element any more.'
                        : 'Read back, the platform has '
                            .($holds === null
                                ? 'no text there.'
                                : 'another text: '.mb_strimwidth($holds, 0, 2000, '…')),
            ]);
        LiveTexts::set($due->node, $due->kind, $due->name, $holds);
        $this->batches->enterFound($due, $holds);
    }

    /**
     * The places that the change writes more than once: a platform holds the last of the texts.
     *
     * @param list<Due> $writes
     * @return array<string, int> place → the position of the last write
     */
    private function writtenTwice(array $writes): array
    {
        $nodes = array_keys(
            array_intersect_key(
                $this->twice,
                array_fill_keys(array_map(static fn (Due $d): int => $d->node, $writes), true),
            ),
        );

        return $nodes === []
            ? []
            : ChangeWrite::query()
                ->where('change_id', $this->change->id)
                ->whereIntegerInRaw('node_id', $nodes)
                ->whereIn('state', WriteState::there())
                ->toBase()
                ->groupBy('node_id', 'kind', 'name')
                ->havingRaw('count(*) > 1')
                ->selectRaw('node_id, kind, name, max(position) position')
                ->get()
                ->mapWithKeys(
                    static fn (object $w): array => ["{$w->node_id} {$w->kind} {$w->name}" => (int) $w->position],
                )
                ->all();
    }
}
