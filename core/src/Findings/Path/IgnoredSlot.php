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
            $why = match ($layer->state) {
                LayerState::TypeIgnores => "{$title} does not read the {$layer->slot->value} of the {$standing->levelLabel($layer->node)} for {$standing->path->campaignType()} campaigns.",
                LayerState::NoSuchPlace => "{$title} has no {$layer->slot->value} on this level: what is set on the {$standing->levelLabel($layer->node)} is never read.",
                default => null,
            };
            if ($why !== null) {
                yield new Finding('ignored-slot', Severity::Warning, $why, $layer->node, $layer->slot);
            }
        }
    }
}
