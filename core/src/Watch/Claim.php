<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/**
 * What a platform claims to have brought, down to what counts for it here: conversions in millionths, or revenue in
 * minor units. All parts add up to the claim. (watch.md §6)
 */
final readonly class Claim
{
    /**
     * @param int $claimed by the platform, on the days of the clicks
     * @param int $counted for it here
     * @param array<string, int> $elsewhere counted here for others, by channel
     * @param int $outside its click was longer ago than the client's setting counts
     * @param int $repeated orders that had been counted before
     * @param int|null $surplus more counts for it here than it claims; null: no more, and the rest was never seen here
     */
    private function __construct(
        public int $claimed,
        public int $counted,
        public array $elsewhere,
        public int $outside,
        public int $repeated,
        public int $takenBack,
        public ?int $surplus,
        public int $unseen,
    ) {}

    /** @param array<string, int> $elsewhere by channel */
    public static function of(
        int $claimed,
        int $counted = 0,
        array $elsewhere = [],
        int $outside = 0,
        int $repeated = 0,
        int $takenBack = 0,
    ): self {
        $unseen = $claimed - $counted - array_sum($elsewhere) - $outside - $repeated - $takenBack;
        $surplus = $unseen < 0 ? -$unseen : null;

        return new self(
            $claimed,
            $counted,
            $elsewhere,
            $outside,
            $repeated,
            $takenBack,
            $surplus,
            max(0, $unseen),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'claimed' => $this->claimed,
            'counted' => $this->counted,
            'elsewhere' => (object) $this->elsewhere,
            'outside' => $this->outside,
            'repeated' => $this->repeated,
            'takenBack' => $this->takenBack,
            'surplus' => $this->surplus,
            'unseen' => $this->unseen,
        ];
    }
}
