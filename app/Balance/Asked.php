<?php

namespace App\Balance;

use App\Models\Client;

/** Of which days, and of what, it is told where clicks have gone. */
final readonly class Asked
{
    /**
     * @param list<string> $by some of StairRecords::BY, a line for each; none: all together
     * @param array{0: string, 1: int|string}|null $within one of StairRecords::BY, and which: what is below it alone
     */
    public function __construct(
        public Client $client,
        public string $from,
        public string $to,
        public array $by = [],
        public ?array $within = null,
        public Sessions $sessions = new Sessions(),
    ) {}

    /** The same, all together. */
    public function together(): self
    {
        return new self($this->client, $this->from, $this->to, [], $this->within, $this->sessions);
    }

    /** By what lines are told; null: all together. */
    public function by(): ?string
    {
        return $this->by[0] ?? null;
    }

    /** Single ads are told out of the records: there are too many of them to add each up by day. */
    public function isOfAds(): bool
    {
        return in_array('ad', [...$this->by, $this->within[0] ?? null], true);
    }
}
