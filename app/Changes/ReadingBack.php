<?php

namespace App\Changes;

use App\Accounts\LiveTexts;
use App\Models\Change;
use App\Models\ChangeWrite;
use App\Models\Node;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Reads back what was written. What the platform holds is what we note: if it is another text, the ledger says so. */
final readonly class ReadingBack
{
    private const AT_ONCE = 500;

    /** As many as one request takes. */
    private const ONE_REQUEST = 200;

    public function __construct(private Change $change, private Batches $batches) {}

    /** Reads some back as soon as there are enough of them for one request. */
    public function keepUp(): void
    {
        $writes = $this->written(self::ONE_REQUEST);
        if ($writes->count() === self::ONE_REQUEST) {
            $this->compare($writes);
        }
    }

    /** @param \Closure(): bool $goOn asked after each chunk */
    public function run(\Closure $goOn): bool
    {
        do {
            $writes = $this->written(self::AT_ONCE);
            if ($writes->isNotEmpty()) {
                $this->compare($writes);
            }
        } while ($writes->isNotEmpty() && ($going = $goOn()));

        return $going ?? true;
    }

    /** @return Collection<int, object> of what was written, with what we take its node to be */
    private function written(int $most): Collection
    {
        return ChangeWrite::query()->where('change_id', $this->change->id)->where('change_writes.state', 'written')->join('nodes', 'nodes.id', 'node_id')->toBase()->orderBy('change_writes.position')->limit($most)
            ->get(['change_writes.id', 'change_writes.position', 'node_id', 'kind', 'change_writes.name', 'after', 'external_id', 'version', 'standing']);
    }

    /** @param Collection<int, object> $writes */
    private function compare(Collection $writes): void
    {
        $remotes = $this->batches->remotes($writes->pluck('external_id'));
        $later = $this->writtenTwice($writes);
        [$same, $differs] = $writes->partition(static fn (object $w): bool => ($later[self::place($w)] ?? 0) > $w->position || ($remotes[$w->external_id] ?? null)?->text($w->kind, $w->name) === $w->after);
        DB::transaction(function () use ($writes, $same, $differs, $remotes): void {
            ChangeWrite::query()->whereIntegerInRaw('id', $same->pluck('id'))->update(['state' => 'verified']);
            foreach ($differs as $row) {
                $write = ChangeWrite::query()->findOrFail($row->id);
                $remote = $remotes[$row->external_id] ?? null;
                $holds = $remote?->text($row->kind, $row->name);
                $write->update(['state' => 'differs', 'problem' => $remote === null ? 'Read back, the platform does not have the element any more.' : 'Read back, the platform has '.($holds === null ? 'no text there.' : "another text: {$holds}")]);
                LiveTexts::set($row->node_id, $row->kind, $row->name, $holds);
                DB::table('ledger')->insertOrIgnore([Batches::entry($this->change, $write, $row->after, $holds, found: true)]);
            }
            $versions = $standings = [];
            foreach ($writes as $row) {
                $remote = $remotes[$row->external_id] ?? null;
                if ($remote !== null && $remote->version !== $row->version) {
                    $versions[$row->node_id] = [$row->node_id, $remote->version];
                }
                if ($remote !== null && $remote->standing !== $row->standing) {
                    $standings[$remote->standing][] = $row->node_id;
                }
            }
            Batches::versions(array_values($versions));
            foreach ($standings as $standing => $nodes) {
                Node::query()->whereIntegerInRaw('id', $nodes)->update(['standing' => $standing]);
            }
        });
    }

    /**
     * The places that the change writes more than once: a platform holds the last of the texts.
     *
     * @param Collection<int, object> $writes
     * @return array<string, int> place → the position of the last write
     */
    private function writtenTwice(Collection $writes): array
    {
        return ChangeWrite::query()->where('change_id', $this->change->id)->whereIntegerInRaw('node_id', $writes->pluck('node_id')->unique())->whereIn('state', ['written', 'verified'])->toBase()
            ->groupBy('node_id', 'kind', 'name')->havingRaw('count(*) > 1')->selectRaw('node_id, kind, name, max(position) position')->get()
            ->mapWithKeys(static fn (object $w): array => [self::place($w) => (int) $w->position])->all();
    }

    private static function place(object $w): string
    {
        return "{$w->node_id} {$w->kind} {$w->name}";
    }
}
