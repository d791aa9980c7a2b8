<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

/** Reads URLs back by the texts of an account as they are and as they were. */
final class Decoders
{
    /** So many times are looked through for one URL of which nobody knows when it arrived, the last ones. */
    private const MOST_TIMES = 24;

    /** @var array<int, Decoder> by instant */
    private array $decoders = [];

    /** @var non-empty-list<int> one of each time between two changes, the last first */
    private readonly array $times;

    public function __construct(public readonly History $history)
    {
        $this->times = $history->times();
    }

    /**
     * @param int|null $at when it arrived; null: nobody knows, the last time at which it fits counts
     * @return array{int, list<Fit>} an instant of the time whose texts fit, and what fits
     */
    public function fits(string $url, ?int $at): array
    {
        foreach ($at === null ? array_slice($this->times, 0, self::MOST_TIMES) : [$this->like($at)] as $time) {
            $fits = ($this->decoders[$time] ??= new Decoder($this->history->at($time)))->fits($url);
            if ($fits !== []) {
                return [$at ?? $time, $fits];
            }
        }

        return [$at ?? $this->times[0], []];
    }

    /** The instant of the same time between two changes. */
    private function like(int $at): int
    {
        $nodes = $this->history->at($at)->nodes;
        foreach ($this->times as $time) {
            if ($this->history->at($time)->nodes == $nodes) {
                return $time;
            }
        }

        return $at;
    }
}
