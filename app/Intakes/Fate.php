<?php

namespace App\Intakes;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Sheet\Element;

/** What an import would make of an element that a sheet has. */
enum Fate: string
{
    case New = 'new';
    case Changed = 'changed';
    case Same = 'same';
    /** The sheet itself says so. */
    case Gone = 'gone';
    /** It can't be taken over: the problems say why. */
    case Left = 'left';

    /** Of an element that something can be said of, whatever it stands under. */
    public static function of(Element $said, ?Element $was): self
    {
        if ($was === null && $said->isLeftOut()) {
            return self::Left;
        }
        $now = $was?->overlaid($said->settled()) ?? $said->settled();

        return match (true) {
            $now->isGone() => self::Gone,
            $was === null => self::New,
            $now->isAs($was) => self::Same,
            default => self::Changed,
        };
    }

    /** Is it said nowhere what an element stands under that can't stand by itself? */
    public static function hasNoPlace(Element $said, Dialect $dialect): bool
    {
        return $said->parent === null
            && $said->step->depth > ($dialect->levelOf(Role::Campaign)->depth ?? PHP_INT_MAX);
    }
}
