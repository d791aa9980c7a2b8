<?php

declare(strict_types=1);

namespace Vestigon\Core\Numbers;

/** What each naming column of a row says, as far as it can be known. */
final readonly class NamedRow
{
    /** @param list<list<Named>> $byColumn elements that each can be about: one, where it is known */
    private function __construct(public array $byColumn) {}

    /**
     * An element that can't stand on one path with anything that another column says is left out.
     *
     * @param list<NamingColumn> $columns
     * @param list<list<Named>> $known of each column's cell
     */
    public static function of(array $columns, array $known): self
    {
        foreach ($known as $i => $some) {
            $fits = array_values(array_filter($some, static fn (Named $n): bool => self::fits($n, $i, $known)));
            $known[$i] = $columns[$i]->choose($fits === [] ? $some : $fits);
        }
        foreach ($known as $i => $some) { // what one column has decided helps those before it
            $fits = array_values(array_filter($some, static fn (Named $n): bool => self::fits($n, $i, $known)));
            $known[$i] = $fits === [] ? $some : $fits;
        }

        return new self($known);
    }

    /** The narrowest element that is known for sure. */
    public function narrowest(): ?Named
    {
        $narrowest = null;
        foreach ($this->byColumn as $some) {
            if (count($some) === 1 && ($narrowest === null || $some[0]->depth() > $narrowest->depth())) {
                $narrowest = $some[0];
            }
        }

        return $narrowest;
    }

    /** @param list<list<Named>> $known */
    private static function fits(Named $named, int $at, array $known): bool
    {
        foreach ($known as $i => $others) {
            $isOnPath = static fn (bool $is, Named $o): bool => $is || $named->isOnOnePathWith($o);
            if ($i !== $at && $others !== [] && ! array_reduce($others, $isOnPath, false)) {
                return false;
            }
        }

        return true;
    }
}
