<?php

namespace App\Results;

use App\Models\Client;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\Line;

/**
 * Adds up sessions, what conversions count for, and what platforms say, by what is asked for; sums are exact. What asks
 * for few dimensions is answered from what was added up by day.
 */
final readonly class Sums
{
    public function __construct(private Rollups $rollups, private NameParts $nameParts) {}

    /** @return array<string, Line> by their values, in no order */
    public function of(Client $client, Question $question): array
    {
        $question = $this->nameParts->resolved($client, $question);
        $set = RollupSet::of($question->columns());

        return $set->isKept() && $question->reading === null
            ? $this->lines($client, $question, $this->rolledUp($client, $question, $set))
            : $this->ofRecords($client, $question);
    }

    /** @return array<string, Line> the same, from the records themselves */
    public function ofRecords(Client $client, Question $question): array
    {
        return $this->lines($client, $question, self::records($client, $question));
    }

    /**
     * @param iterable<object> $rows
     * @return array<string, Line>
     */
    private function lines(Client $client, Question $question, iterable $rows): array
    {
        $rows = is_array($rows) ? $rows : iterator_to_array($rows, false);
        $parts = [];
        foreach ($question->by as $i => $by) {
            if ($by->isPart) {
                $parts[$i] = $this->nameParts->of(
                    $client,
                    $by->asked,
                    array_values(array_filter(array_unique(array_column($rows, "by{$i}")), is_numeric(...))),
                );
            }
        }
        $lines = [];
        foreach ($rows as $row) {
            $values = [];
            foreach ($question->by as $i => $by) {
                $value = (string) $row->{"by{$i}"};
                $values[$by->asked] = isset($parts[$i]) ? $parts[$i][$value] ?? '' : $value;
            }
            self::add($lines[implode("\0", $values)] ??= new Line($values), $row);
        }

        return $lines;
    }

    private static function add(Line $line, object $row): void
    {
        $line->sessions += (int) ($row->sessions ?? 0);
        $line->views += (int) ($row->views ?? 0);
        $line->onePage += (int) ($row->one_page ?? 0);
        $line->newVisitors += (int) ($row->new_visitors ?? 0);
        $line->conversions += (int) ($row->part ?? 0);
        $line->impressions += (int) ($row->impressions ?? 0);
        $line->clicks += (int) ($row->clicks ?? 0);
        $currency = $row->currency === '' ? null : $row->currency;
        if (isset($row->value)) {
            Line::add($line->revenue, $currency, (int) $row->value);
            Line::add($line->net, $currency, (int) $row->net);
        }
        if (isset($row->cost)) {
            Line::add($line->cost, $currency, (int) $row->cost);
        }
    }

    /** @return list<object> */
    private function rolledUp(Client $client, Question $question, RollupSet $set): array
    {
        $number = $this->rollups->upToDate($client, $set, $question->from, $question->to);
        $numbered = new Question(
            $question->by,
            $question->from,
            $question->to,
            array_map(
                static fn (array $w): array => $w['by']->isTime()
                    ? $w
                    : ['is' => self::numbers($client, $w['is'])] + $w,
                $question->where,
            ),
        );
        $rows = [];
        foreach (Spans::of($number, $question) as $weeks => $days) {
            array_push($rows, ...self::rolled($numbered, $set, $number, $weeks, $days));
        }
        foreach ($question->by as $i => $by) {
            if (! $by->isTime()) {
                $values = RollupValues::of(array_column($rows, "by{$i}"));
                foreach ($rows as $row) {
                    $row->{"by{$i}"} = $values[$row->{"by{$i}"}] ?? '';
                }
            }
        }

        return $rows;
    }

    /**
     * @param int $weeks of spans of so many; 0: of days
     * @param list<string> $days the first of each span
     * @return list<object>
     */
    private static function rolled(Question $question, RollupSet $set, int $number, int $weeks, array $days): array
    {
        $marks = implode(', ', array_fill(0, count($days), '?'));
        $measures = array_diff(
            array_keys(DayLines::MEASURES),
            Question::areOfFigures($set->beside) ? [] : array_keys(Fact::Figures->measures()),
        );

        return DB::select(...self::query(
            $question,
            static fn (By $b): string => $b->isTime() ? $b->dimension->ofDay('r.day') : $set->at($b),
            array_combine($measures, array_map(static fn (string $m): string => "r.{$m}", $measures)),
            'r.currency',
            $weeks === 0
                ? "{$set->from('rollups')} where r.set_id = ? and r.day in ({$marks})"
                : "{$set->from('rollup_weeks')} where r.set_id = ? and r.weeks = ? and r.day in ({$marks})",
            [$number, ...$weeks === 0 ? [] : [$weeks], ...$days],
        ));
    }

    /**
     * @param list<string> $values
     * @return non-empty-list<int>
     */
    private static function numbers(Client $client, array $values): array
    {
        $known = array_intersect_key(RollupValues::known($client, $values), array_flip($values));

        return $known === [] ? [-1] : array_values($known);
    }

    /** @return iterable<object> */
    private static function records(Client $client, Question $question): iterable
    {
        foreach (Fact::cases() as $fact) {
            if ($fact === Fact::Figures && ! $question->knowsFigures()) {
                continue;
            }
            $of = $fact->table();
            $byItem = Question::areOfItems($question->asked());
            yield from DB::select(
                ...self::query(
                    $question,
                    $fact->at(...),
                    $fact->measures($byItem),
                    $fact->currency(),
                    "{$fact->from($question->reading, $byItem)} where {$of}.client_id = ? and {$of}.day between ? and ?"
                        .$fact->within($question->reading),
                    [$client->id, $question->from, $question->to],
                ),
            );
        }
    }

    /**
     * @param \Closure(By): string $at
     * @param array<string, string> $measures
     * @param list<mixed> $values
     * @return array{string, list<mixed>} the query, and its values
     */
    private static function query(
        Question $question,
        \Closure $at,
        array $measures,
        string $currency,
        string $from,
        array $values,
    ): array {
        $columns = [];
        foreach ($question->by as $i => $by) {
            $columns["by{$i}"] = $at($by);
        }
        $columns['currency'] = $currency;
        $group = implode(', ', range(1, count($columns)));
        $select = [];
        foreach ($columns as $name => $sql) {
            $select[] = "{$sql} {$name}";
        }
        foreach ($measures as $name => $sql) {
            $select[] = "sum({$sql}) {$name}";
        }
        [$where, $more] = self::where($question, $at);

        return [
            'select '.implode(', ', $select)." from {$from}{$where} group by {$group}",
            [...$values, ...$more],
        ];
    }

    /**
     * @param \Closure(By): string $at
     * @return array{string, list<string|int>}
     */
    public static function where(Question $question, \Closure $at): array
    {
        $where = '';
        $values = [];
        foreach ($question->where as ['by' => $by, 'is' => $is, 'not' => $not]) {
            $marks = implode(', ', array_fill(0, count($is), '?'));
            $where .= " and {$at($by)} ".($not ? 'not ' : '')."in ({$marks})";
            array_push($values, ...$is);
        }

        return [$where, $values];
    }
}
