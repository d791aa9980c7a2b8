<?php

namespace App\Results;

use App\Models\Client;
use Illuminate\Support\Facades\DB;

/** How many values a client's sessions have, and how many lines dimensions beside each other come to: of one day. */
final readonly class Variety
{
    /** Sessions that are looked at. */
    private const SAMPLE = 100_000;

    /** It is worth adding up ahead what comes to so many times fewer lines than there are sessions. */
    private const FEWER = 4;

    /**
     * @param array<string, list<string>> $values of each session, by the dimension
     * @param array<string, int> $many how many values each dimension has
     */
    private function __construct(private array $values, private array $many, private int $sessions) {}

    /** Of the last day that is over. */
    public static function of(Client $client): self
    {
        $dimensions = array_filter(
            Dimension::cases(),
            static fn (Dimension $d): bool => ! $d->isTime() && $d !== Dimension::Key,
        );
        $sessions = static fn () => DB::table('site_sessions as s')->where('client_id', $client->id);
        $rows = $sessions()
            ->where('day', $sessions()->where('day', '<', now()->toDateString())->max('day'))
            ->limit(self::SAMPLE)
            ->select(
                array_map(
                    static fn (Dimension $d) => DB::raw(Fact::Sessions->at(By::of($d))." `{$d->value}`"),
                    array_values($dimensions),
                ),
            )
            ->get();
        $values = $many = [];
        foreach ($dimensions as $dimension) {
            $of = array_map(strval(...), $rows->pluck($dimension->value)->all());
            $values[$dimension->value] = $of;
            $many[$dimension->value] = count(array_flip($of));
        }

        return new self($values, $many, $rows->count());
    }

    public function comesToFewLines(RollupSet $set): bool
    {
        return $this->lines($set) * self::FEWER <= $this->sessions;
    }

    /** How many values that of its columns has that has most; keys of plans are not looked at. */
    public function most(RollupSet $set): int
    {
        return max([0, ...array_map(fn (By $by): int => $this->many[$by->column()] ?? 0, $set->columns())]);
    }

    private function lines(RollupSet $set): int
    {
        $columns = array_intersect_key(
            $this->values,
            array_flip(array_map(static fn (By $by): string => $by->column(), $set->columns())),
        );
        $lines = [];
        for ($i = 0; $i < $this->sessions; $i++) {
            $lines[implode("\0", array_column($columns, $i))] = true;
        }

        return count($lines);
    }
}
