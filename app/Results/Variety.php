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
     * @param array<string, list<int>> $values of each session, by the column or by what is told together: equal ones
     *     have equal numbers, from 0 on
     * @param array<string, int> $many how many values each of them has
     */
    private function __construct(private array $values, private array $many, private int $sessions) {}

    /**
     * Of the last day that is over.
     *
     * @param list<By> $keys of plans, beside all dimensions
     */
    public static function of(Client $client, array $keys): self
    {
        $plain = array_filter(
            Dimension::cases(),
            static fn (Dimension $d): bool => ! $d->isTime() && $d !== Dimension::Key,
        );
        $columns = [];
        foreach ([...array_map(By::of(...), array_values($plain)), ...$keys] as $by) {
            $columns[$by->column()] = DB::raw(Fact::Sessions->at($by)." `{$by->column()}`");
        }
        $downTo = [];
        foreach (DownTo::cases() as $all) {
            $downTo[$all->value] = array_column($all->dimensions(), 'value');
        }
        $sessions = static fn () => DB::table('site_sessions as s')->where('client_id', $client->id);
        $rows = $sessions()
            ->where('day', $sessions()->where('day', '<', now()->toDateString())->max('day'))
            ->limit(self::SAMPLE)
            ->select(array_values($columns))
            ->cursor();
        $values = $numbers = array_fill_keys([...array_keys($columns), ...array_keys($downTo)], []);
        $many = 0;
        foreach ($rows as $row) {
            $told = (array) $row;
            foreach ($downTo as $all => $names) {
                $list = array_map(static fn (string $name): string => (string) $row->{$name}, $names);
                $told[$all] = implode("\0", $list);
            }
            foreach ($told as $name => $value) {
                $values[$name][] = $numbers[$name][$value] ??= count($numbers[$name]);
            }
            $many++;
        }

        return new self($values, array_map(count(...), $numbers), $many);
    }

    public function comesToFewLines(RollupSet $set): bool
    {
        return $this->lines($set) * self::FEWER <= $this->sessions;
    }

    /** How many values that of its columns has that has most. */
    public function most(RollupSet $set): int
    {
        return max([0, ...array_map(fn (By $by): int => $this->many[$by->column()] ?? 0, $set->columns())]);
    }

    private function lines(RollupSet $set): int
    {
        $lines = $this->values[$set->downTo->value];
        $many = $this->many[$set->downTo->value];
        foreach ($set->beside as $by) {
            $numbers = [];
            foreach ($this->values[$by->column()] as $i => $value) {
                $lines[$i] = $numbers[$lines[$i] * $this->many[$by->column()] + $value] ??= count($numbers);
            }
            $many = count($numbers);
        }

        return $many;
    }
}
