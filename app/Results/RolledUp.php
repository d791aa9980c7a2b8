<?php

namespace App\Results;

use App\Models\Client;
use Illuminate\Support\Facades\DB;

/** What was added up, as one question reads it: with the numbers of values in place of them. */
final readonly class RolledUp
{
    /** So many lines may have as much as the last that is asked for. */
    private const AS_MUCH = 1000;

    /** The database adds up doubles in two thirds of the time that it takes for decimals. */
    private const DOUBLE = ' + 0e0';

    /** Doubles are exact for whole numbers below this (IEEE 754: 53 bits). */
    private const EXACT = 2 ** 53;

    /**
     * @param string $from which lines of rollups are read
     * @param list<string|int> $values of that
     * @param list<string> $measures
     */
    private function __construct(
        private Question $question,
        private RollupSet $set,
        private string $from,
        private array $values,
        private array $measures,
    ) {}

    public static function of(Client $client, Question $question, RollupSet $set, int $number): self
    {
        $numbered = $question->where(
            array_map(
                static fn (array $w): array => $w['by']->isTime()
                    ? $w
                    : ['is' => self::numbers($client, $w['is'])] + $w,
                $question->where,
            ),
        );
        $spans = [];
        $values = [$number];
        foreach (Spans::of($number, $question) as $weeks => $days) {
            $spans[] = 'r.weeks = ? and r.day in ('.implode(', ', array_fill(0, count($days), '?')).')';
            array_push($values, $weeks, ...$days);
        }

        return new self(
            $numbered,
            $set,
            "{$set->from()} where r.set_id = ? and (".implode(' or ', $spans).')',
            $values,
            array_values(
                array_diff(
                    array_keys(DayLines::MEASURES),
                    Question::areOfFigures($set->beside) ? [] : array_keys(Fact::Figures->measures()),
                ),
            ),
        );
    }

    /** @return list<object> all of it, by the lines that are asked for and by currency */
    public function lines(): array
    {
        return $this->select($this->question->by, '');
    }

    /**
     * The lines that have most of something, in no order, and all lines together; nothing if the database can't tell
     * which those are.
     *
     * @param string $measure what they have most of
     * @param string $currency of that, if it is money
     * @param int $most so many of them; as many more are told as are needed to know all that have as much as the last
     * @return array{list<object>, int, list<object>}|null by line and currency; how many lines there are; and their sum
     *     by currency
     */
    public function largest(string $measure, string $currency, int $most): ?array
    {
        if (! in_array($measure, $this->measures, true)) {
            return null; // no line has any of it
        }

        return DB::transaction(function () use ($measure, $currency, $most): ?array {
            $total = $this->select([], self::DOUBLE);
            if ($this->isTooMuch($total)) {
                return null;
            }
            $currencies = array_values(array_filter(array_column($total, 'currency'), strlen(...)));
            [$sql, $values] = $this->ofAllCurrencies($currencies, $measure, $currency);
            $limit = $most + self::AS_MUCH;
            $rows = DB::select("select sql_calc_found_rows {$sql} order by weight desc limit {$limit}", $values);
            $all = (int) DB::scalar('select found_rows()');
            if ($all > count($rows) && (int) $rows[$most - 1]->weight === (int) end($rows)->weight) {
                return null;
            }

            return [$this->byCurrency($rows, $currencies), $all, $total];
        });
    }

    /**
     * @param list<string> $currencies
     * @return array{string, list<mixed>} a query, without its first word, and its values
     */
    private function ofAllCurrencies(array $currencies, string $measure, string $currency): array
    {
        $told = $bound = [];
        foreach ($this->measures as $one) {
            if (! self::isMoney($one)) {
                $told[$one] = "r.{$one}".self::DOUBLE;

                continue;
            }
            foreach ($currencies as $i => $of) {
                $told["{$one}_{$i}"] = "if(r.currency = ?, r.{$one}, null)".self::DOUBLE;
                $bound[] = $of;
            }
        }
        $weight = self::isMoney($measure) ? "if(r.currency = ?, coalesce(r.{$measure}, 0), 0)" : "r.{$measure}";
        $told['weight'] = $weight.self::DOUBLE;
        [$sql, $values] = $this->query($this->question->by, [], $told);

        return [$sql, [...$bound, ...self::isMoney($measure) ? [$currency] : [], ...$values]];
    }

    private static function isMoney(string $measure): bool
    {
        return DayLines::MEASURES[$measure] === null;
    }

    /**
     * @param list<object> $rows each with money of all currencies, numbered
     * @param list<string> $currencies
     * @return list<object> a row for each currency
     */
    private function byCurrency(array $rows, array $currencies): array
    {
        $by = array_map(static fn (int $i): string => "by{$i}", array_keys($this->question->by));
        $told = [];
        foreach ($rows as $row) {
            $line = array_intersect_key((array) $row, array_flip($by));
            $counts = array_intersect_key((array) $row, DayLines::MEASURES);
            $told[] = (object) ($line + $counts + ['currency' => '']);
            foreach ($currencies as $i => $currency) {
                $money = ['currency' => $currency];
                foreach (array_filter($this->measures, self::isMoney(...)) as $measure) {
                    $money[$measure] = $row->{"{$measure}_{$i}"};
                }
                $told[] = (object) ($line + $money);
            }
        }

        return $told;
    }

    /**
     * Is it more than doubles are exact for?
     *
     * @param list<object> $total
     */
    private function isTooMuch(array $total): bool
    {
        foreach ($total as $sums) {
            foreach ($this->measures as $measure) {
                if (abs($sums->{$measure} ?? 0) >= self::EXACT) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * @param list<By> $by
     * @param string $as what follows each measure
     * @return list<object>
     */
    private function select(array $by, string $as): array
    {
        [$sql, $values] = $this->query(
            $by,
            ['currency' => 'r.currency'],
            array_combine($this->measures, array_map(static fn (string $m): string => "r.{$m}{$as}", $this->measures)),
        );

        return DB::select("select {$sql}", $values);
    }

    /**
     * @param list<By> $by
     * @param array<string, string> $beside
     * @param array<string, string> $measures
     * @return array{string, list<mixed>}
     */
    private function query(array $by, array $beside, array $measures): array
    {
        return Sums::query(
            $this->question->by($by),
            fn (By $b): string => $b->isTime() ? $b->dimension->ofDay('r.day') : $this->set->at($b),
            $beside,
            $measures,
            $this->from,
            $this->values,
        );
    }

    /**
     * @param list<string|int> $values
     * @return non-empty-list<int>
     */
    private static function numbers(Client $client, array $values): array
    {
        $values = array_map(strval(...), $values);
        $known = array_intersect_key(RollupValues::known($client, $values), array_flip($values));

        return $known === [] ? [-1] : array_values($known);
    }
}
