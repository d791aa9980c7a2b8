<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Dialect\AutoTag;
use Vestigon\Core\Dialect\AutoTagMode;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;

/** auto-tag-conflict: the platform adds a tag of its own whose key a text has too. */
final readonly class AutoTagConflict implements PathRule
{
    public function check(Standing $standing): iterable
    {
        $tags = $standing->path->dialect->autoTags;
        $mode = $standing->settings->autoTags ?? $tags?->default;
        $isDropped = $standing->hop()?->appends === false; // by a tracker that passes no tag on
        if ($tags === null || $mode === AutoTagMode::Off || $isDropped) {
            return;
        }
        $own = array_map(static fn (AutoTag $t): string => $t->key, $tags->tags);
        foreach ($standing->counting() as $slot) {
            $kind = $slot->slot->kind;
            foreach (
                array_slice(
                    $slot->template->queryInside($kind === SlotKind::Suffix)->pieces,
                    $kind === SlotKind::Suffix ? 0 : 1,
                ) as $pair
            ) {
                if (! $pair->keyFixed || ! in_array($pair->key, $own, true)) {
                    continue;
                }
                [$severity, $why] = match (true) {
                    $kind === SlotKind::Template
                        || ($standing->path->dialect->assembly->suffixJoinsClick && $kind === SlotKind::Suffix) => [
                            Severity::Error,
                            "{$standing->path->dialect->title} adds {$pair->key} itself, so it arrives twice.",
                        ],
                    $mode === AutoTagMode::Replace => [
                        Severity::Warning,
                        "{$standing->path->dialect->title} takes this {$pair->key} out and puts its own in.",
                    ],
                    default => [
                        Severity::Note,
                        "This {$pair->key} wins: {$standing->path->dialect->title} leaves its own out.",
                    ],
                };
                yield new Finding(
                    'auto-tag-conflict',
                    $severity,
                    $why,
                    $slot->slot->ownerAt($pair->at),
                    $kind,
                    at: $slot->slot->within($pair->at),
                    length: strlen($pair->key),
                    key: $pair->key,
                );
            }
        }
    }
}
