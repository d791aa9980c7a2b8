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
     * @param array<string, list<int>> $values of each session, by the dimension or by what is told together: equal ones
     *     have equal numbers, from 0 on
     * @param array<string, int> $many how many values each of them has
     */
    private function __construct(private array $values, private array $many, private int $sessions) {}

    /** Of the last day that is over. */
    public static function of(Client $client): self
    {
        $dimensions = [];
        foreach (Dimension::cases() as $d) {
            if (! $d->isTime() && $d !== Dimension::Key) {
                $dimensions[$d->value] = DB::raw(Fact::Sessions->at(By::of($d))." `{$d->value}`");
            }
        }
        $together = [];
        foreach (Together::cases() as $all) {
            $together[$all->value] = array_column($all->dimensions(), 'value');
        }
        $sessions = static fn () => DB::table('site_sessions as s')->where('client_id', $client->id);
        $rows = $sessions()
            ->where('day', $sessions()->where('day', '<', now()->toDateString())->max('day'))
            ->limit(self::SAMPLE)
            ->select(array_values($dimensions))
            ->cursor();
        $values = $numbers = array_fill_keys([...array_keys($dimensions), ...array_keys($together)], []);
        $many = 0;
        foreach ($rows as $row) {
            $told = (array) $row;
            foreach ($together as $all => $names) {
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

    /** How many values that of its columns has that has most; keys of plans are not looked at. */
    public function most(RollupSet $set): int
    {
        return max([0, ...array_map(fn (By $by): int => $this->many[$by->column()] ?? 0, $set->columns())]);
    }

    private function lines(RollupSet $set): int
    {
        $lines = $this->values[$set->together->value];
        $many = $this->many[$set->together->value];
        foreach ($set->beside as $by) {
            $values = $this->values[$by->column()] ?? [];
            $numbers = [];
            foreach ($values as $i => $value) {
                $lines[$i] = $numbers[$lines[$i] * $this->many[$by->column()] + $value] ??= count($numbers);
            }
            $many = $values === [] ? $many : count($numbers);
        }

        return $many;
    }
}
