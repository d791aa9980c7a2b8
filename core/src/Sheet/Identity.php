<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;

/**
 * Tells which elements a row is about: by their numbers, where the table has them, else by their names under what
 * stands above them.
 */
final readonly class Identity
{
    private const DIGITS = 20;

    /** @var array<string, bool> by level: does the table have numbers for it? */
    private array $hasId;

    public function __construct(private Dialect $dialect, TableMap $map, private string $account)
    {
        $hasId = [];
        foreach ($dialect->levels as $level) {
            $hasId[$level->id] = $map->hasIdOf($level->id);
        }
        $this->hasId = $hasId;
    }

    /**
     * @param string|null $own the level of the row; null: the narrowest that it identifies
     * @return non-empty-list<Step>|null the account first, the row's own element last; null: that one is not told
     */
    public function steps(Names $names, ?string $own): ?array
    {
        $depth = $own === null ? PHP_INT_MAX : $this->dialect->level($own)->depth ?? 0;
        $steps = [];
        $way = '';
        foreach ($this->dialect->levels as $level) {
            if ($level->depth > $depth) {
                break;
            }
            $isOwn = $level->id === $own;
            $name = $names->of(Says::Name, $level->id, $isOwn);
            $type = $names->of(Says::Type, $level->id, $isOwn);
            $isByName = $level->depth > 0 && ! $this->hasId[$level->id];
            $id = $isByName ? $name : ($level->depth === 0 ? $this->account : $names->of(Says::Id, $level->id, $isOwn));
            if ($id === '') {
                continue;
            }
            $way .= ($way === '' ? '' : "\x1F").$level->id.($isByName ? '=' : ':').$id;
            $steps[] = new Step(
                $level->id,
                $level->depth,
                $isByName ? '='.substr(hash('sha256', $way), 0, self::DIGITS) : $id,
                $isByName,
                $name,
                $type === '' ? null : $type,
            );
        }
        if ($steps === []) {
            return null;
        }
        $last = $steps[count($steps) - 1];

        return ($own === null ? $last->depth > 0 : $last->level === $own) ? $steps : null;
    }

    /** Does a row say that it belongs to another account? Then which; else null. */
    public function otherAccount(Names $names, ?string $own): ?string
    {
        $level = $this->dialect->levels[0]->id;
        $id = $names->of(Says::Id, $level, $level === $own);

        return $id === '' || $id === $this->account ? null : $id;
    }

    /** What a row lacks that does not say whose it is. */
    public function why(?string $own): string
    {
        $level = $own === null ? null : $this->dialect->level($own);

        return $level === null
            ? 'Neither a number nor a name says what this row is about.'
            : "The {$level->label} of this row has no ".($this->hasId[$level->id] ? 'number.' : 'name.');
    }
}
