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
        if (! $set->isKept() || $question->reading !== null) {
            return $this->ofRecords($client, $question);
        }
        $rolledUp = $this->rolledUp($client, $question, $set);

        return $this->named($client, $question, $rolledUp->lines());
    }

    /**
     * The lines that have most of something, and all lines together.
     *
     * @param string $measure what they have most of
     * @return array{lines: array<string, Line>, many: int, total: Line}|null so many lines and some more, how many
     *     there are, and what they come to; null: that is only told by all of them
     */
    public function largest(Client $client, Question $question, string $measure, int $most): ?array
    {
        // lines of time are in its order; those of parts of names are told by what names say
        $others = array_filter($question->by, static fn (By $b): bool => $b->isTime() || $b->isPart);
        if ($question->by === [] || $others !== []) {
            return null;
        }
        $question = $this->nameParts->resolved($client, $question);
        $set = RollupSet::of($question->columns());
        if (! $set->isKept() || $question->reading !== null) {
            return null;
        }
        $found = $this->rolledUp($client, $question, $set)->largest($measure, $client->currency, $most);
        if ($found === null) {
            return null;
        }
        [$rows, $many, $sums] = $found;
        $total = new Line([]);
        foreach ($sums as $sum) {
            self::add($total, $sum);
        }

        return ['lines' => $this->named($client, $question, $rows), 'many' => $many, 'total' => $total];
    }

    /** @return array<string, Line> the same, from the records themselves */
    public function ofRecords(Client $client, Question $question): array
    {
        $rows = self::records($client, $question);

        return $this->lines($client, $question, $rows, array_fill(0, count($question->by), null));
    }

    /**
     * @param list<object> $rows
     * @param list<array<int, string>|null> $values what the numbers of each dimension stand for; null: they are values
     * @return array<string, Line>
     */
    private function lines(Client $client, Question $question, array $rows, array $values): array
    {
        $columns = $asked = [];
        foreach ($question->by as $i => $by) {
            $columns[$i] = "by{$i}";
            $asked[] = $by->asked;
            if ($by->isPart) {
                $values[$i] = $this->parts($client, $by, $values[$i] ?? array_column($rows, "by{$i}", "by{$i}"));
            }
        }
        $lines = [];
        foreach ($rows as $row) {
            $told = [];
            foreach ($columns as $i => $column) {
                $told[] = $values[$i] === null ? $row->{$column} : $values[$i][$row->{$column}] ?? '';
            }
            $key = implode("\0", $told);
            self::add($lines[$key] ??= new Line(array_combine($asked, array_map(strval(...), $told))), $row);
        }

        return $lines;
    }

    /**
     * @param array<array-key, string|int> $elements
     * @return array<array-key, string> what stands in place of each: a part of its name
     */
    private function parts(Client $client, By $by, array $elements): array
    {
        $known = $this->nameParts->of($client, $by->asked, array_values(array_filter($elements, is_numeric(...))));

        return array_map(static fn (string|int $element): string => $known[$element] ?? '', $elements);
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

    private function rolledUp(Client $client, Question $question, RollupSet $set): RolledUp
    {
        $number = $this->rollups->upToDate($client, $set, $question->from, $question->to);

        return RolledUp::of($client, $question, $set, $number);
    }

    /**
     * @param list<object> $rows with numbers in place of values
     * @return array<string, Line>
     */
    private function named(Client $client, Question $question, array $rows): array
    {
        $values = [];
        foreach ($question->by as $i => $by) {
            $values[] = $by->isTime() ? null : RollupValues::of(array_column($rows, "by{$i}"));
        }

        return $this->lines($client, $question, $rows, $values);
    }

    /** @return list<object> */
    private static function records(Client $client, Question $question): array
    {
        $rows = [];
        foreach (Fact::cases() as $fact) {
            if ($fact === Fact::Figures && ! $question->knowsFigures()) {
                continue;
            }
            $of = $fact->table();
            $byItem = Question::areOfItems($question->asked());
            [$sql, $values] = self::query(
                $question,
                $fact->at(...),
                ['currency' => $fact->currency()],
                $fact->measures($byItem),
                "{$fact->from($question->reading, $byItem)} where {$of}.client_id = ? and {$of}.day between ? and ?"
                    .$fact->within($question->reading),
                [$client->id, $question->from, $question->to],
            );
            $rows = array_merge($rows, DB::select("select {$sql}", $values));
        }

        return $rows;
    }

    /**
     * @param \Closure(By): string $at
     * @param array<string, string> $beside what lines are told by, beside what is asked
     * @param array<string, string> $measures
     * @param list<mixed> $values
     * @return array{string, list<mixed>} a query of at least one of these, without its first word, and its values
     */
    public static function query(
        Question $question,
        \Closure $at,
        array $beside,
        array $measures,
        string $from,
        array $values,
    ): array {
        $columns = [];
        foreach ($question->by as $i => $by) {
            $columns["by{$i}"] = $at($by);
        }
        $columns += $beside;
        $select = [];
        foreach ($columns as $name => $sql) {
            $select[] = "{$sql} {$name}";
        }
        foreach ($measures as $name => $sql) {
            $select[] = "sum({$sql}) {$name}";
        }
        [$where, $more] = self::where($question, $at);
        $group = implode(', ', range(1, count($columns)));

        return [implode(', ', $select)." from {$from}{$where} group by {$group}", [...$values, ...$more]];
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
