<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Account\LayerState;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;

/** ignored-slot: a text that the platform does not read at this level or for this campaign type. */
final readonly class IgnoredSlot implements PathRule
{
    public function check(Standing $standing): iterable
    {
        $title = $standing->path->dialect->title;
        foreach ($standing->layers as $layer) {
            [$slot, $level] = [$layer->slot->value, $standing->levelLabel($layer->node)];
            $type = $standing->path->campaignType();
            $why = match ($layer->state) {
                LayerState::TypeIgnores => "{$title} does not read the {$slot} of the {$level} for {$type} campaigns.",
                LayerState::NoSuchPlace => "{$title} has no {$slot} on this level: "
                    ."what is set on the {$level} is never read.",
                default => null,
            };
            if ($why !== null) {
                yield new Finding('ignored-slot', Severity::Warning, $why, $layer->node, $layer->slot);
            }
        }
    }
}
