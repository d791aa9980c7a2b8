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
    private const CHUNK = 500;

    private const SOME = 200;

    public function __construct(private Change $change, private Batches $batches) {}

    /** Reads some back as soon as there are enough of them for one request. */
    public function keepUp(): void
    {
        $writes = $this->change->writes()->reorder('id')->where('state', 'written')->with('node')->limit(self::SOME)->get();
        if ($writes->count() === self::SOME) {
            $this->compare($writes);
        }
    }

    /** @param \Closure(): bool $goOn asked after each chunk */
    public function run(\Closure $goOn): bool
    {
        do {
            $writes = $this->change->writes()->reorder('id')->where('state', 'written')->with('node')->limit(self::CHUNK)->get();
            if ($writes->isNotEmpty()) {
                $this->compare($writes);
            }
        } while ($writes->isNotEmpty() && ($going = $goOn()));

        return $going ?? true;
    }

    /** @param Collection<int, ChangeWrite> $writes */
    private function compare(Collection $writes): void
    {
        $remotes = $this->batches->remotes($writes->pluck('node.external_id'));
        // a place that the change writes again later holds the later text
        $later = $this->change->writes()->reorder()->whereIn('node_id', $writes->pluck('node_id')->unique())->whereIn('state', ['written', 'verified'])->get()
            ->groupBy(self::place(...))->map(static fn (Collection $c): int => (int) $c->max('position'));
        [$same, $differs] = $writes->partition(static fn (ChangeWrite $w): bool => $later[self::place($w)] > $w->position || ($remotes[$w->node->external_id] ?? null)?->text($w->kind, $w->name) === $w->after);
        DB::transaction(function () use ($same, $differs, $remotes): void {
            ChangeWrite::query()->whereIn('id', $same->pluck('id'))->update(['state' => 'verified']);
            foreach ($differs as $write) {
                $remote = $remotes[$write->node->external_id] ?? null;
                $holds = $remote?->text($write->kind, $write->name);
                $write->update(['state' => 'differs', 'problem' => $remote === null ? 'Read back, the platform does not have the element any more.' : 'Read back, the platform has '.($holds === null ? 'no text there.' : "another text: {$holds}")]);
                LiveTexts::set($write->node_id, $write->kind, $write->name, $holds);
                DB::table('ledger')->insertOrIgnore([Batches::entry($this->change, $write, $write->after, $holds, found: true)]);
            }
            $nodes = [];
            foreach ([...$same, ...$differs] as $write) {
                $remote = $remotes[$write->node->external_id] ?? null;
                if ($remote !== null) {
                    $nodes[$write->node_id] = [$write->node_id, $remote->version];
                    $standings[$remote->standing][] = $write->node_id;
                }
            }
            Batches::versions(array_values($nodes));
            foreach ($standings ?? [] as $standing => $ids) {
                Node::query()->whereIntegerInRaw('id', $ids)->where('standing', '<>', $standing)->update(['standing' => $standing]);
            }
        });
    }

    private static function place(ChangeWrite $w): string
    {
        return "{$w->node_id} {$w->kind} {$w->name}";
    }
}
