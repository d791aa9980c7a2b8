<?php

namespace App\Numbers;

use App\Dialects\Dialects;
use App\Models\Client;
use App\Sheets\Files\Opening;
use App\Sheets\Files\Table;
use App\Sheets\Files\Writing;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Numbers\By;
use Vestigon\Core\Numbers\NamedRow;
use Vestigon\Core\Numbers\NamingColumn;
use Vestigon\Core\Numbers\Note;

/** Any sheet out of any report, with the names of what its numbers are of, or the numbers of what its names are of. */
final readonly class Numbers
{
    /** Lines that are shown. */
    private const SHOWN = 300;

    public function __construct(private Dialects $dialects) {}

    /**
     * @param array<int, By|null> $told
     * @param list<int>|null $summed see Lines::of
     * @return array<string, mixed> see NumbersLook in the API's description
     *
     * @throws UnusableInput
     */
    public function look(Client $client, string $path, string $name, int $at, array $told, ?array $summed): array
    {
        $tables = Opening::tables($path, $name);
        $report = Report::of(self::table($tables, $at), new Elements($client), $told);
        $called = $this->kinds($client);
        $lines = [];
        $rows = 0;
        $byColumn = array_map(static fn (): array => ['known' => 0, 'several' => 0, 'unknown' => 0], $report->columns);
        $isMore = false;
        foreach (Lines::of($report, $summed) as [$named, $cells, $row, $of]) {
            foreach ($of === [] ? [[$named, $cells]] : $of as [$one, $its]) {
                $rows++;
                foreach ($report->columns as $i => $column) {
                    $how = self::how($its[$column->at] ?? '', $one->byColumn[$i]);
                    if ($how !== null) {
                        $byColumn[$i][$how]++;
                    }
                }
            }
            if (count($lines) < self::SHOWN) {
                $lines[] = self::line($report, $named, $cells, $row) + [
                    'of' => array_map(static fn (array $r): array => self::line($report, ...$r), $of),
                ];
            }
            $isMore = $summed === null && $rows === Report::FIRST;
            if ($isMore) {
                break;
            }
        }

        return [
            'tables' => array_map(static fn (Table $t): string => $t->title(), $tables),
            'form' => $report->table->form()->toArray(),
            'headings' => $report->headings,
            'columns' => array_map(
                static fn (NamingColumn $c, array $counts): array => [
                    'at' => $c->at,
                    'by' => $c->by->value,
                    'of' => $c->kind === null ? null : $called[$c->kind],
                ] + $counts,
                $report->columns,
                $byColumn,
            ),
            'amounts' => array_column($report->amounts, 'at'),
            'summed' => $summed ?? $report->sums(),
            'rows' => $rows,
            'isMore' => $isMore,
            'lines' => $lines,
        ];
    }

    /**
     * @param array<int, By|null> $told
     * @param list<int>|null $summed
     * @return array{path: string, name: string, type: string} the whole in its own form, with what is known beside it
     *
     * @throws UnusableInput
     */
    public function sheet(Client $client, string $path, string $name, int $at, array $told, ?array $summed): array
    {
        $table = self::table(Opening::tables($path, $name), $at);
        $report = Report::of($table, new Elements($client), $told);
        $rows = static fn (): iterable => self::out($report, $summed);
        $tables = [['title' => $table->title(), 'form' => $table->form(), 'rows' => $rows]];

        return Writing::files([$name => $tables], strtr($table->title(), '/\\%', '___').' named');
    }

    /**
     * @param list<int>|null $summed
     * @return iterable<list<mixed>>
     */
    private static function out(Report $report, ?array $summed): iterable
    {
        $n = 0;
        foreach ($report->preamble() as $row) {
            $isHeading = ++$n === $report->above;
            yield $isHeading ? self::beside($report, $row, static fn (NamingColumn $c): array => self::headed($c), [
                ...($summed === null ? [] : ['of which']),
                'path',
                'note',
            ]) : $row;
        }
        foreach (Lines::of($report, $summed) as [$named, $cells, $row, $of]) {
            yield self::told($report, $named, $cells, $row, $summed === null ? null : '');
            foreach ($of as [$one, $its, $read]) {
                yield self::told($report, $one, $its, $read, 'of which');
            }
        }
    }

    /** @return list<string> */
    private static function headed(NamingColumn $column): array
    {
        return [$column->by === By::Name ? 'number' : 'name'];
    }

    /**
     * @param list<string> $cells
     * @param list<string|int|float|null> $row
     * @return list<mixed>
     */
    private static function told(Report $report, NamedRow $named, array $cells, array $row, ?string $which): array
    {
        $places = array_flip(array_column($report->columns, 'at'));
        $narrowest = $named->narrowest();

        return self::beside(
            $report,
            $row,
            static function (NamingColumn $c) use ($named, $places): array {
                $some = $named->byColumn[$places[$c->at]];

                return [count($some) === 1 ? ($c->by === By::Name ? $some[0]->number : $some[0]->name) : ''];
            },
            [
                ...($which === null ? [] : [$which]),
                $narrowest->path ?? '',
                implode('; ', array_filter(self::notes($report, $named, $cells, $row))),
            ],
        );
    }

    /**
     * @param list<mixed> $row
     * @param \Closure(NamingColumn): list<string> $added to each naming column
     * @param list<string> $last
     * @return list<mixed>
     */
    private static function beside(Report $report, array $row, \Closure $added, array $last): array
    {
        $row = array_pad($row, count($report->headings), '');
        foreach (array_reverse($report->columns) as $column) {
            array_splice($row, $column->at + 1, 0, $added($column));
        }

        return [...$row, ...$last];
    }

    /**
     * @param list<string> $cells
     * @param list<string|int|float|null> $row
     * @return list<string|null> by column
     */
    private static function notes(Report $report, NamedRow $named, array $cells, array $row): array
    {
        return array_map(
            static fn (NamingColumn $c, array $some): ?string => Note::of(
                $c,
                $cells[$c->at] ?? '',
                $row[$c->at] ?? null,
                $some,
            ),
            $report->columns,
            $named->byColumn,
        );
    }

    /**
     * @param list<string> $cells
     * @param list<string|int|float|null> $row
     * @return array<string, mixed>
     */
    private static function line(Report $report, NamedRow $named, array $cells, array $row): array
    {
        return [
            'cells' => array_pad($cells, count($report->headings), ''),
            'named' => array_map(
                static fn (array $some): ?array => count($some) !== 1 ? null : [
                    'node' => $some[0]->id,
                    'account' => (int) $some[0]->kind,
                    'isAd' => $some[0]->isAd,
                    'number' => $some[0]->number,
                    'name' => $some[0]->name,
                    'path' => $some[0]->path,
                ],
                $named->byColumn,
            ),
            'how' => array_map(
                static fn (NamingColumn $c, array $some): ?string => self::how($cells[$c->at] ?? '', $some),
                $report->columns,
                $named->byColumn,
            ),
            'notes' => self::notes($report, $named, $cells, $row),
        ];
    }

    /**
     * @param list<Named> $named
     * @return 'known'|'several'|'unknown'|null how well a cell is known; null: it says nothing
     */
    private static function how(string $cell, array $named): ?string
    {
        return $cell === '' ? null : ['unknown', 'known'][count($named)] ?? 'several';
    }

    /**
     * @param list<Table> $tables
     *
     * @throws UnusableInput
     */
    private static function table(array $tables, int $at): Table
    {
        return $tables[$at] ?? throw new UnusableInput('there is no table '.($at + 1));
    }

    /** @return array<string, array{account: string, level: string}> by account and level */
    private function kinds(Client $client): array
    {
        $kinds = [];
        foreach ($client->accounts()->get() as $account) {
            foreach ($this->dialects->of($client->id, $account->dialect)->levels as $level) {
                $kinds["{$account->id} {$level->id}"] = ['account' => $account->name, 'level' => $level->label];
            }
        }

        return $kinds;
    }
}
