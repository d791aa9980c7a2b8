<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Account\LayerState;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;

/**
 * overridden: a narrower level has a text of its own for the slot, so the wider one does not count. Its place is the
 * narrower text.
 */
final readonly class Overridden implements PathRule
{
    public function check(Standing $standing): iterable
    {
        foreach ($standing->layers as $layer) {
            if ($layer->state === LayerState::Hidden && $layer->hiddenBy !== null) {
                [$wider, $narrower] = array_map($standing->levelLabel(...), [$layer->node, $layer->hiddenBy]);
                yield new Finding(
                    'overridden',
                    Severity::Note,
                    "The {$layer->slot->value} of the {$wider} does not count here: "
                        ."the {$narrower} “{$layer->hiddenBy->name}” has its own.",
                    $layer->hiddenBy,
                    $layer->slot,
                );
            }
        }
    }
}
