<?php

namespace App\Results;

use App\Models\Client;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Watch\Line;

/** Adds up sessions, what conversions count for, and what platforms say, by what is asked for; sums are exact. */
final readonly class Sums
{
    /** @return array<string, Line> by their values, in no order */
    public function of(Client $client, Question $question): array
    {
        $lines = [];
        foreach ($this->sessions($client, $question) as $r) {
            $line = self::line($lines, $question, $r);
            $line->sessions += (int) $r->sessions;
            $line->views += (int) $r->views;
            $line->onePage += (int) $r->one_page;
            $line->newVisitors += (int) $r->new_visitors;
        }
        foreach ($this->shares($client, $question) as $r) {
            $line = self::line($lines, $question, $r);
            $line->conversions += (int) $r->part;
            Line::add($line->revenue, $r->currency, (int) $r->value);
            Line::add($line->net, $r->currency, (int) $r->net);
        }
        foreach ($question->knowsFigures() ? $this->figures($client, $question) : [] as $r) {
            $line = self::line($lines, $question, $r);
            $line->impressions += (int) $r->impressions;
            $line->clicks += (int) $r->clicks;
            Line::add($line->cost, $r->currency, (int) $r->cost);
        }

        return $lines;
    }

    /** @param array<string, Line> $lines */
    private static function line(array &$lines, Question $question, object $row): Line
    {
        $by = [];
        foreach ($question->by as $i => $dimension) {
            $by[$dimension->value] = (string) $row->{"by{$i}"};
        }

        return $lines[implode("\0", $by)] ??= new Line($by);
    }

    /** @return list<object> */
    private function sessions(Client $client, Question $question): array
    {
        return $this->rows(
            $client,
            $question,
            static fn (Dimension $d): string => $d->ofSessions(),
            'sum(s.views > 0) sessions, sum(s.views) views, sum(s.views = 1) one_page, sum(s.is_new = 1) new_visitors',
            'site_sessions s',
            's',
        );
    }

    /** @return list<object> */
    private function shares(Client $client, Question $question): array
    {
        return $this->rows(
            $client,
            $question,
            static fn (Dimension $d): string => $d->ofShares(),
            'sum(c.part) part, sum(c.value) value, sum(c.net) net, c.currency currency',
            'shares c left join site_sessions s on s.id = c.session_id',
            'c',
            ['c.currency'],
        );
    }

    /** @return list<object> */
    private function figures(Client $client, Question $question): array
    {
        return $this->rows(
            $client,
            $question,
            static fn (Dimension $d): string => $d->ofFigures() ?? "''",
            'sum(f.impressions) impressions, sum(f.clicks) clicks, sum(f.cost) cost, f.currency currency',
            'figures f left join wanted_lines w on w.node_id = f.node_id',
            'f',
            ['f.currency'],
        );
    }

    /**
     * @param \Closure(Dimension): string $at
     * @param list<string> $alsoBy
     * @return list<object>
     */
    private function rows(
        Client $client,
        Question $question,
        \Closure $at,
        string $sums,
        string $from,
        string $of,
        array $alsoBy = [],
    ): array {
        $select = $group = [];
        foreach ($question->by as $i => $dimension) {
            $select[] = "{$at($dimension)} by{$i}";
            $group[] = "by{$i}";
        }
        [$where, $values] = self::where($question, $at);
        $group = [...$group, ...$alsoBy];

        return DB::select(
            'select '.
                implode(', ', [...$select, $sums]).
                " from {$from}
            where {$of}.client_id = ? and {$of}.day between ? and ?{$where}".
                ($group === [] ? '' : ' group by '.implode(', ', $group)),
            [$client->id, $question->from, $question->to, ...$values],
        );
    }

    /**
     * @param \Closure(Dimension): string $at
     * @return array{string, list<string>}
     */
    public static function where(Question $question, \Closure $at): array
    {
        $where = '';
        $values = [];
        foreach ($question->where as ['by' => $dimension, 'is' => $is, 'not' => $not]) {
            $marks = implode(', ', array_fill(0, count($is), '?'));
            $where .= " and coalesce({$at($dimension)}, '') ".($not ? 'not ' : '')."in ({$marks})";
            array_push($values, ...$is);
        }

        return [$where, $values];
    }
}
