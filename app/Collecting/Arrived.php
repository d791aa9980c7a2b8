<?php

namespace App\Collecting;

use App\Support\Statement;

/** Puts arrivals into their tables, each once, and marks whose they are, over whatever connection there is. */
final readonly class Arrived
{
    private const AT_ONCE = 500;

    /** @param \Closure(Statement): list<object> $ask runs it; what it tells of its rows */
    public function __construct(private \Closure $ask) {}

    /**
     * @param array<int, array<string, mixed>> $rows as Row makes them
     * @return array<int, array<string, mixed>> those that were not known, by the same keys, with their ids
     */
    public function keep(array $rows): array
    {
        $kept = [];
        foreach (array_chunk($rows, self::AT_ONCE, true) as $some) {
            $new = $this->unknown($some);
            if ($new === []) {
                continue;
            }
            $numbers = array_column(
                ($this->ask)(
                    Statement::put('insert into arrivals', array_values($new), returning: 'id, external_id'),
                ),
                'id',
                'external_id',
            );
            foreach ($new as $i => $row) {
                $kept[$i] = $row + ['id' => (int) $numbers[$row['external_id']]];
            }
        }
        $this->mark($kept);

        return $kept;
    }

    /**
     * Sessions and what conversions count for are worked out anew for these alone: of a visitor, `v` and its word;
     * of nobody who is known again, `a` and the number of the arrival.
     *
     * @param array<int, array<string, mixed>> $arrivals rows that were kept
     */
    public function mark(array $arrivals): void
    {
        $marks = [];
        foreach ($arrivals as $row) {
            $who = $row['visitor'] === null ? "a{$row['id']}" : "v{$row['visitor']}";
            $key = "{$row['collector_id']} {$who}";
            $since = min($marks[$key]['since'] ?? $row['at'], $row['at']);
            $marks[$key] = ['collector_id' => $row['collector_id'], 'who' => $who, 'since' => $since];
        }
        ksort($marks); // in one order, so that two never wait for each other
        foreach (array_chunk(array_values($marks), self::AT_ONCE) as $some) {
            $earlier = 'on duplicate key update since = least(since, values(since))';
            ($this->ask)(Statement::put('insert into touched', $some, $earlier));
        }
    }

    /**
     * @param non-empty-array<int, array<string, mixed>> $rows
     * @return array<int, array<string, mixed>> those that have not come before; of the same, the first
     */
    private function unknown(array $rows): array
    {
        $ids = [];
        foreach ($rows as $row) {
            $ids[] = [
                'collector_id' => $row['collector_id'],
                'external_id' => $row['external_id'],
                'day' => substr($row['at'], 0, 10),
            ];
        }
        $told = ($this->ask)(Statement::put('insert ignore into arrival_ids', $ids, returning: 'external_id'));
        $unknown = array_fill_keys(array_column($told, 'external_id'), true);
        $new = [];
        foreach ($rows as $i => $row) {
            if (isset($unknown[$row['external_id']])) {
                unset($unknown[$row['external_id']]);
                $new[$i] = $row;
            }
        }

        return $new;
    }
}
