<?php

declare(strict_types=1);

namespace Standins\Crowd;

use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/** Chance that falls the same way each time it is asked about the same thing. */
final class Chance
{
    private readonly Randomizer $dice;

    public function __construct(string $of)
    {
        $this->dice = new Randomizer(new Xoshiro256StarStar(hash('sha256', $of, true)));
    }

    /** From 0 to 1, 1 never. */
    public function share(): float
    {
        return $this->dice->getInt(0, (1 << 30) - 1) / (1 << 30);
    }

    public function happens(float $share): bool
    {
        return $this->share() < $share;
    }

    public function between(int $least, int $most): int
    {
        return $this->dice->getInt($least, $most);
    }

    /**
     * @template T
     *
     * @param non-empty-list<T> $of
     * @return T
     */
    public function oneOf(array $of): mixed
    {
        return $of[$this->dice->getInt(0, count($of) - 1)];
    }

    /** How often something happens that happens so often on the average. */
    public function times(float $mean): int
    {
        if ($mean > 30) {
            return max(
                0,
                (int) round($mean + ($this->share() + $this->share() + $this->share() - 1.5) * 2 * sqrt($mean)),
            );
        }
        $least = exp(-$mean);
        for ($n = 0, $left = $this->share(); $left > $least; $n++) {
            $left *= $this->share();
        }

        return $n;
    }

    public function word(): string
    {
        return bin2hex($this->dice->getBytes(6));
    }
}
