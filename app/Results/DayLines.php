<?php

namespace App\Results;

use App\Models\Client;
use Illuminate\Support\Facades\DB;

/** The lines of some days, added up in one reading of their records by several sets. */
final class DayLines
{
    /** Records that are held at once to find those that are alike. */
    private const AT_ONCE = 50_000;

    /** What a line has, in this order. Money is null where there is none. */
    public const MEASURES = [
        'sessions' => 0,
        'views' => 0,
        'one_page' => 0,
        'new_visitors' => 0,
        'part' => 0,
        'value' => null,
        'net' => null,
        'impressions' => 0,
        'clicks' => 0,
        'cost' => null,
    ];

    /** @var array<int, array<string, list<int|null>>> set → day, currency and values → measures */
    private array $lines = [];

    /** @var array<string, int> what ads are told by, together → its place: lines have that for a value */
    private array $ads = [];

    /**
     * @param array<int, RollupSet> $sets by their numbers
     * @param non-empty-array<string, array<int, int>> $stale day → set → the version that is to be had
     */
    public function __construct(
        private readonly Client $client,
        private readonly array $sets,
        private readonly array $stale,
    ) {
        foreach (Fact::cases() as $fact) {
            $this->add($fact);
        }
    }

    /** @return array<int, array<string, list<int|null>>> set → day, currency and values → measures */
    public function all(): array
    {
        return $this->lines;
    }

    /** @return list<list<string>> what ads are told by, together: lines have its place here for a value */
    public function ads(): array
    {
        return array_map(static fn (string|int $ads): array => explode("\0", (string) $ads), array_keys($this->ads));
    }

    private function add(Fact $fact): void
    {
        $sets = array_filter(
            $this->sets,
            static fn (RollupSet $s): bool => $fact !== Fact::Figures || Question::areOfFigures($s->beside),
        );
        $columns = [];
        foreach ($sets as $set) {
            foreach ($set->columns() as $by) {
                $columns[$by->column()] = $by;
            }
        }
        if ($sets === []) {
            return;
        }
        $place = array_flip(array_keys($columns));
        $downTo = $beside = [];
        foreach ($sets as $number => $set) {
            if ($set->tellsAds()) {
                $downTo[$set->downTo->value] ??= array_map(
                    static fn (Dimension $d): int => $place[$d->value],
                    $set->downTo->dimensions(),
                );
            }
            $beside[$number] = array_map(static fn (By $b): int => $place[$b->column()], $set->beside);
        }
        foreach ($this->alike($fact, array_values($columns)) as $record => $sums) {
            $values = explode("\0", $record);
            [$day, $currency] = array_splice($values, 0, 2);
            // what has no money stands in one line with most of what has
            $currency = $fact === Fact::Sessions ? $this->client->currency : $currency;
            $begin = ['' => "{$day}\0{$currency}"];
            foreach ($downTo as $of => $places) {
                $list = implode("\0", array_map(static fn (int $p): string => $values[$p], $places));
                $begin[$of] = $begin['']."\0".$this->ads[$list] ??= count($this->ads);
            }
            foreach ($this->stale[$day] as $number => $version) {
                if (isset($beside[$number])) {
                    $key = $begin[$this->sets[$number]->downTo->value];
                    foreach ($beside[$number] as $p) {
                        $key .= "\0".$values[$p];
                    }
                    $this->addTo($number, $key, $sums);
                }
            }
        }
    }

    /** @param array<int, int> $sums by the places of their measures */
    private function addTo(int $set, string $key, array $sums): void
    {
        $this->lines[$set][$key] ??= array_values(self::MEASURES);
        foreach ($sums as $measure => $sum) {
            $this->lines[$set][$key][$measure] += $sum;
        }
    }

    /**
     * Records of which all that is asked for is the same are one: each set has fewer to go through.
     *
     * @param list<By> $columns
     * @return iterable<string, array<int, int>> day, currency and values → sums, by the places of the measures; of very
     *     many records the same may come again
     */
    private function alike(Fact $fact, array $columns): iterable
    {
        $of = $fact->table();
        $byItem = Question::areOfItems($columns);
        $measures = $fact->measures($byItem);
        // as bytes: what is read out of JSON is compared otherwise than a column
        $told = array_map(
            static fn (string $sql): string => "cast({$sql} as binary)",
            [
                "{$of}.day",
                "coalesce({$fact->currency()}, '')",
                ...array_map(static fn (By $by): string => $fact->at($by), $columns),
            ],
        );
        $sums = array_map(
            static fn (string $measure, string $sql): string => "{$sql} {$measure}",
            array_keys($measures),
            $measures,
        );
        $marks = implode(', ', array_fill(0, count($this->stale), '?'));
        $rows = DB::cursor(
            'select concat_ws(char(0), '.implode(', ', $told).') alike, '.implode(', ', $sums)
                ." from {$fact->from(byItem: $byItem)} where {$of}.client_id = ? and {$of}.day in ({$marks})",
            [$this->client->id, ...array_keys($this->stale)],
        );
        $places = array_intersect_key(array_flip(array_keys(self::MEASURES)), $measures);
        $zero = array_fill_keys($places, 0);
        $alike = [];
        foreach ($rows as $row) {
            $sums = &$alike[$row->alike];
            $sums ??= $zero;
            foreach ($places as $measure => $place) {
                $sums[$place] += $row->{$measure};
            }
            unset($sums);
            if (count($alike) === self::AT_ONCE) {
                yield from $alike;
                $alike = [];
            }
        }
        yield from $alike;
    }
}
