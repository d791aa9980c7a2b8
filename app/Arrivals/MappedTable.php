<?php

namespace App\Arrivals;

use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\DayOrder;
use Vestigon\Core\Sheet\Headings;
use Vestigon\Core\Watch\Sheet\EventColumn;
use Vestigon\Core\Watch\Sheet\EventMap;
use Vestigon\Core\Watch\Sheet\EventSuggestion;
use Vestigon\Core\Watch\Sheet\SuggestedEventColumn;

/** What the columns of a table are taken to say of orders or page views, as it is kept with its file. */
final readonly class MappedTable implements \JsonSerializable
{
    /**
     * @param int $at its place in the file, from 0
     * @param list<string> $headings
     * @param list<array{means: string|null, certainty: string, why: string}> $columns by their places
     */
    public function __construct(
        public int $at,
        public string $title,
        public bool $isUsed,
        public int $headingRow,
        public array $headings,
        public array $columns,
        public string $decimal,
        public ?DayOrder $order,
    ) {}

    public static function suggested(int $at, string $title, EventSuggestion $suggestion): self
    {
        return new self(
            $at,
            $title,
            $suggestion->map()->isUsable(),
            $suggestion->headingRow,
            $suggestion->headings,
            array_map(
                static fn (SuggestedEventColumn $c): array => [
                    'means' => $c->means?->value,
                    'certainty' => $c->certainty->value,
                    'why' => $c->why,
                ],
                $suggestion->columns,
            ),
            $suggestion->decimal,
            $suggestion->order,
        );
    }

    /** @param array<string, mixed> $kept */
    public static function of(array $kept): self
    {
        return new self(
            $kept['at'],
            $kept['title'],
            $kept['use'],
            $kept['headingRow'],
            $kept['headings'],
            $kept['columns'],
            $kept['decimal'],
            DayOrder::tryFrom((string) $kept['days']),
        );
    }

    /** @return array<string, mixed> */
    public function jsonSerialize(): array
    {
        return [
            'at' => $this->at,
            'title' => $this->title,
            'use' => $this->isUsed,
            'headingRow' => $this->headingRow,
            'headings' => $this->headings,
            'columns' => $this->columns,
            'decimal' => $this->decimal,
            'days' => $this->order?->value,
        ];
    }

    public function map(): EventMap
    {
        return new EventMap(
            array_map(
                static fn (array $c): ?EventColumn => EventColumn::tryFrom((string) $c['means']),
                $this->columns,
            ),
            $this->decimal,
            $this->order,
        );
    }

    /** @return string|null why its rows can't be understood as yet */
    public function problem(): ?string
    {
        try {
            $this->map()->check();
        } catch (UnusableInput $e) {
            return ucfirst("{$e->getMessage()}.");
        }

        return null;
    }

    /**
     * The same with what a person says of it.
     *
     * @param list<string|null> $means by the places of columns
     */
    public function told(bool $isUsed, array $means, string $decimal, ?DayOrder $order): self
    {
        $columns = [];
        foreach ($this->columns as $place => $column) {
            $says = $means[$place] ?? null;
            $columns[] = $says === $column['means']
                ? $column
                : ['means' => $says, 'certainty' => 'sure', 'why' => 'You said so.'];
        }

        return new self(
            $this->at,
            $this->title,
            $isUsed,
            $this->headingRow,
            $this->headings,
            $columns,
            $decimal,
            $order,
        );
    }

    /** Does another one head its columns the same? Then what is known of this one is so of it. */
    public function fits(self $other): bool
    {
        $folded = static fn (self $t): array => array_map(Headings::folded(...), $t->headings);

        return $folded($this) === $folded($other);
    }

    /** What is known of this one, said of another that heads its columns the same. */
    public function for(self $other): self
    {
        return new self(
            $other->at,
            $other->title,
            $this->isUsed,
            $other->headingRow,
            $other->headings,
            $this->columns,
            $this->decimal,
            $this->order,
        );
    }
}
