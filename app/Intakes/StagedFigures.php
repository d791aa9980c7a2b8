<?php

namespace App\Intakes;

use App\Connectors\Figures;
use App\Models\Intake;
use App\Support\Money;
use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Sheet\Meaning;
use Vestigon\Core\Sheet\Said;

/**
 * What sheets say of ads by day, until they are brought in. Rows of one ad and day are added up: reports split them by
 * keyword, device or hour.
 */
final readonly class StagedFigures
{
    private const CHUNK = 1000;

    public function __construct(private Intake $intake) {}

    /** @param list<Said> $rows */
    public function add(array $rows): void
    {
        $sums = [];
        foreach ($rows as $said) {
            if ($said->figures === null) {
                continue;
            }
            $place = "{$said->own()->key()} {$said->figures->day}";
            $sums[$place] ??= [
                'intake_id' => $this->intake->id,
                'hash' => Stage::hash($said->own()->key()),
                'day' => $said->figures->day,
                ...array_fill_keys(Meaning::NUMBERS, BigDecimal::zero()),
            ];
            foreach ($said->figures->numbers as $name => $number) {
                $sums[$place][$name] = $sums[$place][$name]->plus($number);
            }
        }
        $added = [];
        foreach (Meaning::NUMBERS as $name) {
            $added[$name] = DB::raw("{$name} + values({$name})");
        }
        DB::table('staged_figures')->upsert(
            array_map(
                static fn (array $row): array => array_map(
                    static fn (mixed $v): mixed => $v instanceof BigDecimal ? (string) $v : $v,
                    $row,
                ),
                array_values($sums),
            ),
            ['intake_id', 'hash', 'day'],
            $added,
        );
    }

    /**
     * @param int $depth of ads
     * @return array{ads: int, days: int, from: string, to: string, above: int}|null ads and days that something is said
     *     of, and how much is said of wider elements, which is left out; null: nothing is said
     */
    public function counts(int $depth): ?array
    {
        $counts = DB::table('staged_figures as f')
            ->join(
                'staged as s',
                static fn ($on) => $on->on('s.intake_id', '=', 'f.intake_id')->on('s.hash', '=', 'f.hash'),
            )
            ->where('f.intake_id', $this->intake->id)
            ->selectRaw(
                'count(distinct if(s.depth = ?, f.hash, null)) ads, count(distinct f.day) days, min(f.day) since,'
                    .' max(f.day) until, coalesce(sum(s.depth <> ?), 0) above',
                [$depth, $depth],
            )
            ->first();

        return ($counts->days ?? 0) === 0
            ? null
            : [
                'ads' => (int) $counts->ads,
                'days' => (int) $counts->days,
                'from' => $counts->since,
                'to' => $counts->until,
                'above' => (int) $counts->above,
            ];
    }

    /** @return list<string> what the sheets have columns for */
    public function said(): array
    {
        $means = [];
        foreach ($this->intake->map['tables'] ?? [] as $table) {
            array_push($means, ...array_column($table['columns'], 'means'));
        }

        return array_values(array_intersect(Meaning::NUMBERS, $means));
    }

    /**
     * @param int $depth of ads
     * @param string $currency ISO 4217, which amounts are in
     * @return iterable<list<Figures>> some at a time
     */
    public function each(int $depth, string $currency): iterable
    {
        $digits = Money::digits($currency);
        $last = ['', '0000-01-01'];
        do {
            $rows = DB::table('staged_figures as f')
                ->join(
                    'staged as s',
                    static fn ($on) => $on->on('s.intake_id', '=', 'f.intake_id')->on('s.hash', '=', 'f.hash'),
                )
                ->where(['f.intake_id' => $this->intake->id, 's.depth' => $depth])
                ->whereRaw('(f.hash, f.day) > (?, ?)', $last)
                ->orderBy('f.hash')
                ->orderBy('f.day')
                ->limit(self::CHUNK)
                ->get(['f.*', 's.external_id']);
            yield $rows->map(
                static fn (object $f): Figures => new Figures(
                    $f->day,
                    $f->external_id,
                    max(0, self::whole($f->impressions, 0)),
                    max(0, self::whole($f->clicks, 0)),
                    self::whole($f->cost, $digits),
                    $currency,
                    max(0, self::whole($f->conversions, 0)),
                    self::whole($f->value, $digits),
                ),
            )->all();
            $last = [$rows->last()->hash ?? '', $rows->last()->day ?? ''];
        } while (count($rows) === self::CHUNK);
    }

    private static function whole(string $number, int $digits): int
    {
        return BigDecimal::of($number)->withPointMovedRight($digits)->toScale(0, RoundingMode::HALF_UP)->toInt();
    }
}
