<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Sheet;

use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\DayOrder;

/** What the columns of a sheet say of orders or page views, and how its numbers and days are written. */
final readonly class EventMap
{
    /**
     * @param list<EventColumn|null> $columns by their places; null: nothing of an event
     * @param string $decimal the mark between a number's whole and its parts: `.` or `,`
     * @param DayOrder|null $order null: a day that could be two is none
     */
    public function __construct(public array $columns, public string $decimal = '.', public ?DayOrder $order = null) {}

    /** @throws UnusableInput rows can't be understood by it; the reason begins with a small letter */
    public function check(): void
    {
        $said = array_map(static fn (EventColumn $c): string => $c->called(), array_filter($this->columns));
        $twice = array_search(2, array_count_values($said), true);
        $isOfSomething = $this->place(EventColumn::Order) !== null || $this->place(EventColumn::Url) !== null;
        $why = match (true) {
            $twice !== false => "two columns are said to be the {$twice}. Say of one that it is something else",
            $this->place(EventColumn::At) === null => 'no column says when. Choose the one with the time',
            $isOfSomething => null,
            default => 'no column says which order or which page. Choose the one with order numbers, or with web '
                .'addresses',
        };
        if ($why !== null) {
            throw new UnusableInput($why);
        }
    }

    public function isUsable(): bool
    {
        try {
            $this->check();
        } catch (UnusableInput) {
            return false;
        }

        return true;
    }

    public function place(EventColumn $column): ?int
    {
        $place = array_search($column, $this->columns, true);

        return $place === false ? null : $place;
    }
}
