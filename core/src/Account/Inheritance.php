<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

use Vestigon\Core\Dialect\Inherit;
use Vestigon\Core\Dialect\Slot;
use Vestigon\Core\Dialect\SlotKind;

/** Decides which texts of a slot count on a path. */
final readonly class Inheritance
{
    public function __construct(private Path $path) {}

    /**
     * Every text of the slot on the path, widest first, each with the reason why it does not count if it does not.
     *
     * @return list<Layer>
     */
    public function layers(SlotKind $kind): array
    {
        $slot = $this->path->dialect->slot($kind);
        $type = $this->path->campaignType();
        $layers = [];
        $narrowest = null;
        foreach ($this->path->nodes as $node) {
            $text = $node->slot($kind);
            if ($text === null) {
                continue;
            }
            $state = match (true) {
                $slot === null || ! in_array($node->level, $slot->levels, true) => LayerState::NoSuchPlace,
                ! $slot->countsAt($node->level, $type) => LayerState::TypeIgnores,
                default => LayerState::Counts,
            };
            if ($state === LayerState::Counts) {
                $narrowest = count($layers);
            }
            $layers[] = new Layer($node, $kind, $text, $state);
        }
        if ($slot?->inherit !== Inherit::Nearest || $narrowest === null) {
            return $layers;
        }
        $winner = $layers[$narrowest]->node;

        return array_map(
            static fn (Layer $l, int $i): Layer => $l->state === LayerState::Counts && $i < $narrowest
                ? new Layer($l->node, $kind, $l->text, LayerState::Hidden, $winner)
                : $l,
            $layers,
            array_keys($layers),
        );
    }

    /** The text that counts and where each stretch of it stands; null if nothing counts. */
    public function effective(SlotKind $kind): ?SlotText
    {
        $slot = $this->path->dialect->slot($kind);
        if ($slot === null) {
            return null;
        }
        if ($slot->inherit === Inherit::Nearest) {
            return $this->nearest($slot);
        }
        $counting = array_values(
            array_filter($this->layers($kind), static fn (Layer $l): bool => $l->state === LayerState::Counts),
        );

        return $counting === [] ? null : self::gathered($slot, $counting);
    }

    private function nearest(Slot $slot): ?SlotText
    {
        $type = $this->path->campaignType();
        for ($i = count($this->path->nodes) - 1; $i >= 0; $i--) {
            $node = $this->path->nodes[$i];
            if (
                isset($node->slots[$slot->kind->value])
                && $slot->countsAt($node->level, $type)
                && ($text = $node->slot($slot->kind)) !== null
            ) {
                return new SlotText($slot->kind, $text, [0 => $node]);
            }
        }

        return null;
    }

    /** @param non-empty-list<Layer> $layers */
    private static function gathered(Slot $slot, array $layers): ?SlotText
    {
        $pieces = [];
        foreach ($layers as $depth => $layer) {
            foreach (explode('&', rtrim(ltrim($layer->text, '?&'), '&')) as $piece) {
                if ($piece !== '') {
                    $pieces[] = [$piece, $depth, $layer->node];
                }
            }
        }
        if ($slot->narrowestWins) {
            $narrowest = [];
            foreach ($pieces as [$piece, $depth]) {
                $narrowest[self::key($piece)] = $depth;
            }
            $pieces = array_filter($pieces, static fn (array $p): bool => $p[1] === $narrowest[self::key($p[0])]);
        }
        $text = '';
        $owners = [];
        foreach ($pieces as [$piece, , $node]) {
            $owners[strlen($text)] = $node;
            $text .= ($text === '' ? '' : '&').$piece;
        }

        return $text === '' ? null : new SlotText($slot->kind, $text, $owners);
    }

    private static function key(string $piece): string
    {
        return substr($piece, 0, strcspn($piece, '='));
    }
}
