<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/**
 * From the clicks that a platform has counted down to those that arrived where they should be: each loss a step. All
 * steps add up to the clicks. (watch.md §6)
 */
final readonly class Balance
{
    /** Beyond this share of the clicks the rest is marked (from memory: 5 to 15 % is usual). */
    private const USUAL = 0.15;

    /**
     * @param int $clicks as the platform says
     * @param array<string, int> $elsewhere by channel
     * @param int $repeats views that are no clicks: they stand beside the sum
     * @param int|null $surplus more than was paid for; null: there is no more, and the split below holds
     * @param int|null $tracker null: nobody knows
     * @param int|null $withheld null: nobody counts
     */
    private function __construct(
        public int $clicks,
        public int $arrived,
        public array $elsewhere,
        public int $empty,
        public int $raw,
        public int $repeats,
        public ?int $surplus,
        public int $broken = 0,
        public int $untracked = 0,
        public ?int $tracker = null,
        public ?int $withheld = null,
        public int $rest = 0,
    ) {}

    /**
     * @param array<string, int> $elsewhere by channel
     * @param int $broken clicks, less what arrived, of ads whose trail ends before the page
     * @param int $untracked the same of ads of which nothing can tell that a click was theirs
     * @param int|null $tracker what trackers were sent, less what landed by them
     * @param int|null $withheld views of people who did not consent
     */
    public static function of(
        int $clicks,
        int $arrived,
        array $elsewhere = [],
        int $empty = 0,
        int $raw = 0,
        int $repeats = 0,
        int $broken = 0,
        int $untracked = 0,
        ?int $tracker = null,
        ?int $withheld = null,
    ): self {
        $missing = $clicks - $arrived - array_sum($elsewhere) - $empty - $raw;
        if ($missing < 0) {
            return new self($clicks, $arrived, $elsewhere, $empty, $raw, $repeats, -$missing);
        }
        $parts = [];
        foreach ([$broken, $untracked, $tracker, $withheld] as $part) {
            $taken = max(0, min($part ?? 0, $missing));
            $missing -= $taken;
            $parts[] = $part === null ? null : $taken;
        }

        return new self(
            $clicks,
            $arrived,
            $elsewhere,
            $empty,
            $raw,
            $repeats,
            null,
            (int) $parts[0],
            (int) $parts[1],
            $parts[2],
            $parts[3],
            $missing,
        );
    }

    /** Is more missing without a cause than is usual? */
    public function isMarked(): bool
    {
        return $this->clicks > 0 && $this->rest > self::USUAL * $this->clicks;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'clicks' => $this->clicks,
            'arrived' => $this->arrived,
            'elsewhere' => (object) $this->elsewhere,
            'empty' => $this->empty,
            'raw' => $this->raw,
            'repeats' => $this->repeats,
            'surplus' => $this->surplus,
            'broken' => $this->broken,
            'untracked' => $this->untracked,
            'tracker' => $this->tracker,
            'withheld' => $this->withheld,
            'rest' => $this->rest,
            'marked' => $this->isMarked(),
        ];
    }
}
