<?php

namespace App\Arrivals;

use App\Connectors\Line;
use App\Connectors\PlatformTrouble;
use App\Models\Collector;
use Illuminate\Support\Facades\DB;

/** Reads new arrivals from an analytics. */
final readonly class Reader
{
    public function __construct(private Keeping $keeping, private Matching $matching) {}

    /** @return int how many are new */
    public function read(Collector $collector): int
    {
        try {
            $items =
                (new Line('Tallyroom', config('platforms.tallyroom.address')))->get(
                    '/v1/arrivals',
                    ['after' => $collector->read_up_to, 'site' => $collector->site],
                    $collector->credentials,
                )['items'] ?? null;
            if (! is_array($items)) {
                throw PlatformTrouble::nonsense('Tallyroom', 'no list of arrivals');
            }
        } catch (PlatformTrouble $e) {
            $collector->update(['problem' => $e->getMessage(), 'read_at' => now()]);

            return 0;
        }
        $rows = $this->keeping->rows($collector, $items);
        $this->matching->match($collector, $rows);
        DB::transaction(function () use ($collector, $rows): void {
            $this->keeping->keep($rows);
            // of two who read at once, none sets the other back
            Collector::query()
                ->whereKey($collector->id)
                ->update([
                    'read_up_to' => DB::raw(
                        'greatest(read_up_to, '.max([0, ...array_column($rows, 'external_id')]).')',
                    ),
                    'problem' => null,
                    'read_at' => now(),
                ]);
        });

        return count($rows);
    }
}
