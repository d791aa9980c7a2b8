<?php

namespace App\Arrivals;

use App\Collecting\Incoming;
use App\Collecting\Row;
use App\Connectors\Line;
use App\Connectors\PlatformTrouble;
use App\Models\Collector;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Document\UnusableInput;

/** Reads new arrivals from an analytics, and what was taken back of orders. */
final readonly class Reader
{
    private const PAGE = 5000;

    public function __construct(
        private Keeping $keeping,
        private Matching $matching,
        private Receiving $receiving,
        private TakenBack $takenBack,
        private Sites $sites,
    ) {}

    /** @return int how many have come; as many as a page has: there may be more */
    public function read(Collector $collector): int
    {
        try {
            $items = $this->items($collector, '/v1/arrivals', $collector->read_up_to);
            $refunds = $this->items($collector, '/v1/refunds', $collector->refunds_up_to);
        } catch (PlatformTrouble $e) {
            $collector->update(['problem' => $e->getMessage(), 'read_at' => now()]);

            return 0;
        }
        $all = $this->usable($collector, $items);
        $rows = Row::all($this->sites->of($collector), $all);
        $this->matching->match($collector, $rows);
        foreach (array_keys($rows) as $i) {
            $rows[$i]['matched_by'] ??= ''; // it was looked for
        }
        DB::transaction(function () use ($collector, $all, $rows, $items, $refunds): void {
            $this->keeping->keep($collector, $all, $rows);
            $this->takenBack->keep(
                $collector,
                array_values(
                    array_filter(
                        array_map(static fn (array $r): ?array => TakenBack::read($collector, $r), $refunds),
                    ),
                ),
            );
            // of two who read at once, none sets the other back
            Collector::query()
                ->whereKey($collector->id)
                ->update([
                    'read_up_to' => DB::raw('greatest(read_up_to, '.self::last($items).')'),
                    'refunds_up_to' => DB::raw('greatest(refunds_up_to, '.self::last($refunds).')'),
                    'problem' => null,
                    'read_at' => now(),
                ]);
        });

        return count($items);
    }

    /** @return list<array<string, mixed>> */
    private function items(Collector $collector, string $path, int $after): array
    {
        $items =
            (new Line('Tallyroom', config('platforms.tallyroom.address')))->get(
                $path,
                ['after' => $after, 'site' => $collector->site, 'limit' => self::PAGE],
                $collector->credentials,
            )['items'] ?? null;
        if (! is_array($items)) {
            throw PlatformTrouble::nonsense('Tallyroom', 'no list of arrivals');
        }

        return array_values(array_filter($items, is_array(...)));
    }

    /**
     * @param list<array<string, mixed>> $items
     * @return list<Incoming>
     */
    private function usable(Collector $collector, array $items): array
    {
        $all = [];
        $refused = 0;
        foreach ($items as $item) {
            try {
                $all[] = Incoming::read($item, (string) $collector->id);
            } catch (UnusableInput) {
                $refused++;
            }
        }
        if ($refused > 0) {
            $this->receiving->refuse($collector, 'no-event', $refused);
        }

        return $all;
    }

    /** @param list<array<string, mixed>> $items */
    private static function last(array $items): int
    {
        return max([0, ...array_map(static fn (array $i): int => (int) ($i['id'] ?? 0), $items)]);
    }
}
