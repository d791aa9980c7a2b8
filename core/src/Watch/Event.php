<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** Something that a visitor did on a site. */
final readonly class Event
{
    /**
     * @param string $id one event of a site has one
     * @param int $at an instant, in milliseconds
     * @param string|null $visitor null: a visitor of its own
     * @param string|null $click the click ID that a conversion names
     * @param int|null $value minor units of the currency
     * @param string|null $currency ISO 4217
     * @param list<Item> $items what was bought
     * @param bool $inApp seen in a browser inside an app, which says so
     */
    public function __construct(
        public string $id,
        public string $site,
        public int $at,
        public EventKind $kind,
        public string $url,
        public string $referrer = '',
        public ?string $visitor = null,
        public ?string $order = null,
        public ?string $click = null,
        public ?int $value = null,
        public ?string $currency = null,
        public ?string $name = null,
        public array $items = [],
        public bool $isTest = false,
        public bool $inApp = false,
    ) {}

    public function isView(): bool
    {
        return $this->kind === EventKind::View;
    }

    /** The same at another instant. */
    public function movedTo(int $at): self
    {
        return new self(
            $this->id,
            $this->site,
            $at,
            $this->kind,
            $this->url,
            $this->referrer,
            $this->visitor,
            $this->order,
            $this->click,
            $this->value,
            $this->currency,
            $this->name,
            $this->items,
            $this->isTest,
            $this->inApp,
        );
    }

    /** Events are in order by when they were, then by their ids. */
    public function isAfter(self $other): bool
    {
        return $this->at === $other->at ? strcmp($this->id, $other->id) > 0 : $this->at > $other->at;
    }

    /** @return int<-1, 1> */
    public static function inOrder(self $a, self $b): int
    {
        return $a->isAfter($b) ? 1 : ($b->isAfter($a) ? -1 : 0);
    }
}
