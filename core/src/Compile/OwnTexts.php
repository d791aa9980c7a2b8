<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Inherit;
use Vestigon\Core\Dialect\Slot;
use Vestigon\Core\Dialect\SlotKind;

/** From what should count at a node to what the node itself must say, where it does not say it yet. */
final readonly class OwnTexts
{
    public function __construct(private Dialect $dialect, private Wording $wording) {}

    /** @param list<Node> $above what stands above it, as it will be */
    public function of(Path $path, array $above, Wanted $wanted): Outcome
    {
        $texts = $unmet = [];
        $node = $path->last();
        foreach ($wanted->texts as $slot => $fitted) {
            $kind = SlotKind::from($slot);
            $rules = $this->dialect->slot($kind);
            $own =
                $rules !== null && $rules->countsAt($node->level, $path->campaignType())
                    ? $this->own($rules, $fitted->text, $path, $above)
                    : $node->slot($kind);
            if ($own === $node->slot($kind)) {
                continue;
            }
            $most = $rules->maxLength ?? PHP_INT_MAX;
            if (mb_strlen((string) $own) > $most) {
                $unmet[] = new LeftOut(
                    '',
                    "the {$slot} would have "
                        .mb_strlen((string) $own)
                        ." characters, {$this->dialect->title} takes {$most}",
                );
            } else {
                $texts[$slot] = $own;
                array_push($unmet, ...$fitted->out);
            }
        }

        return new Outcome($texts, $unmet);
    }

    /**
     * The text that a node itself must have for one to count there; null: none.
     *
     * @param list<Node> $above
     */
    private function own(Slot $slot, string $wanted, Path $path, array $above): ?string
    {
        $kind = $slot->kind;
        $node = $path->last();
        $own = $node->slot($kind);
        $inherited =
            $slot->inherit === Inherit::Gather
                ? ''
                : (new Inheritance(new Path($this->dialect, [...$above, $node->withSlot($kind, null)])))->effective(
                    $kind,
                )->text ?? '';
        // the landing URL alone is what no template gives
        $bare = $kind === SlotKind::Template ? $this->wording->rawLanding : '';
        if (($wanted === '' || $wanted === $bare) && $inherited === '') {
            $wanted = $own === $bare ? $bare : '';
        } elseif ($wanted === '') {
            // a suffix can't be empty below one that is not: without the plan's keys it is the nearest to that
            $wanted = $kind === SlotKind::Suffix ? $this->wording->without($inherited, $kind) : $bare;
        }

        return $wanted === $inherited || $wanted === '' ? null : $wanted;
    }
}
