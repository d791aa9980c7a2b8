<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Findings\Severity;

/** Leaves out what no campaign stands above, with all below it. */
final class WayUp
{
    /**
     * @param array<string, Element> $elements by key
     * @param array<string, Element> $known what is known from before and may stand above them
     * @return array{array<string, Element>, list<Problem>} those that have a way up, and the others, the topmost of
     *     each told
     */
    public static function of(array $elements, array $known, Dialect $dialect): array
    {
        uasort($elements, static fn (Element $a, Element $b): int => $a->step->depth <=> $b->step->depth);
        $campaign = $dialect->levelOf(Role::Campaign)?->depth;
        if ($campaign === null) {
            return [$elements, []]; // the platform has none
        }
        $kept = $problems = [];
        foreach ($elements as $key => $element) {
            $parent = $element->parent[1] ?? null;
            $isInside = $parent !== null && isset($elements[$parent]) && ! isset($kept[$parent]);
            if ($isInside) {
                continue; // left out with what it stands under
            }
            if ($element->step->depth <= $campaign || self::meets($campaign, $element, $kept + $known)) {
                $kept[$key] = $element;

                continue;
            }
            $level = $dialect->level($element->step->level)->label ?? $element->step->level;
            $what = $element->name() === '' ? $element->step->id : $element->name();
            $problems[] = new Problem(
                'no-parent',
                Severity::Error,
                $element->first[0],
                $element->first[1],
                null,
                "It is said nowhere which campaign the {$level} “{$what}” belongs to.",
            );
        }

        return [$kept, $problems];
    }

    /** @param array<string, Element> $elements */
    private static function meets(int $campaign, Element $element, array $elements): bool
    {
        $at = $element;
        while ($at !== null && $at->step->depth > $campaign) {
            $at = $at->parent === null ? null : $elements[$at->parent[1]] ?? null;
        }

        return $at?->step->depth === $campaign;
    }
}
