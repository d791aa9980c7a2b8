<?php

namespace App\Arrivals;

use App\Dialects\Dialects;
use App\Models\SiteFile;
use App\Models\SiteFileState;
use App\Sheets\Files\FirstRows;
use App\Sheets\Files\Opening;
use App\Sheets\Files\Table;
use App\Support\Money;
use App\Support\Text;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Watch\Sheet\EventSheet;
use Vestigon\Core\Watch\Sheet\EventSuggestion;

/**
 * The tables of a sheet of orders or page views: what their columns say is suggested, or known from the last sheet of
 * the site that was headed the same.
 */
final readonly class EventTables
{
    /** So many rows tell what a sheet is. */
    private const LOOKED_AT = 200;

    private const SHOWN = 8;

    /** Of a cell that is shown, in characters. */
    private const LONGEST = 200;

    /** So many sheets back, what was said of them is remembered. */
    private const REMEMBERED = 50;

    public function __construct(private Dialects $dialects) {}

    /**
     * Looks at a file for the first time, and keeps what is suggested.
     *
     * @return bool is all of it known from before?
     *
     * @throws UnusableInput it holds no table
     */
    public function look(SiteFile $file): bool
    {
        $clicks = array_values(
            array_filter(
                array_map(
                    static fn (Dialect $d): ?string => $d->clickId?->parameter,
                    $this->dialects->usedBy($file->collector->client),
                ),
            ),
        );
        $known = self::known($file);
        $tables = [];
        $asks = false;
        foreach (Opening::tables($file->path(), $file->name) as $at => $table) {
            $suggestion = EventSuggestion::of(self::first($table), $clicks);
            if ($suggestion === null) {
                continue;
            }
            $mapped = MappedTable::suggested($at, $table->title(), $suggestion);
            foreach ($known as $one) {
                if ($one->fits($mapped)) {
                    $tables[] = $one->for($mapped);

                    continue 2;
                }
            }
            // a table that could be none of ours asks nothing where there is another one
            $asks = $asks || $mapped->isUsed;
            $tables[] = $mapped;
        }
        if ($tables === []) {
            throw new UnusableInput(
                "{$file->name} has no row that looks like headings. Put in a table whose first rows hold a heading "
                    .'for each column: one for times, and one for order numbers or web addresses',
            );
        }
        $file->update(['map' => $tables]);

        return ! $asks && array_filter($tables, static fn (MappedTable $t): bool => $t->isUsed) !== [];
    }

    /**
     * @return list<array<string, mixed>> its tables, each with its first rows, and what is understood of them
     *
     * @throws UnusableInput
     */
    public function shown(SiteFile $file): array
    {
        $shown = [];
        foreach ($this->mapped($file) as [$table, $mapped]) {
            $rows = array_slice(self::first($table), $mapped->headingRow + 1);
            $sheet = self::sheet($file, $mapped);
            $understood = array_map($sheet->read(...), $rows);
            $shown[] = array_diff_key($mapped->jsonSerialize(), ['at' => 0]) + [
                'problem' => $mapped->problem(),
                'rows' => array_map(
                    static fn (array $row): array => array_map(
                        static fn ($cell): string => Text::fit((string) $cell, self::LONGEST),
                        array_slice($row, 0, count($mapped->headings)),
                    ),
                    array_slice($rows, 0, self::SHOWN),
                ),
                'understood' => array_map(self::told(...), array_slice($understood, 0, self::SHOWN)),
                'counts' => (object) array_count_values(
                    array_column(array_filter(array_map(self::told(...), $understood)), 'is'),
                ),
            ];
        }

        return $shown;
    }

    /**
     * @return iterable<array{Table, MappedTable}> each table with what was said of it
     *
     * @throws UnusableInput
     */
    public function mapped(SiteFile $file): iterable
    {
        if (! is_file($file->path())) {
            throw new UnusableInput("{$file->name} is not there any more. Put it in again");
        }
        $tables = Opening::tables($file->path(), $file->name);
        foreach (array_map(MappedTable::of(...), $file->map ?? []) as $mapped) {
            yield [$tables[$mapped->at], $mapped];
        }
    }

    public static function sheet(SiteFile $file, MappedTable $mapped): EventSheet
    {
        $client = $file->collector->client;

        return new EventSheet(
            $mapped->map(),
            new \DateTimeZone($client->time_zone),
            $client->currency,
            Money::digits(...),
        );
    }

    /** @return list<list<string|int|float|null>> */
    private static function first(Table $table): array
    {
        return FirstRows::of($table, HeadingRow::WITHIN + self::LOOKED_AT);
    }

    /**
     * @param array{event?: array<string, mixed>, refund?: array<string, mixed>}|string $read
     * @return array<string, mixed>|null null: it says nothing
     */
    private static function told(array|string $read): ?array
    {
        return match (true) {
            is_string($read) => ['is' => $read],
            isset($read['refund']) => ['is' => 'refund'] + $read['refund'],
            isset($read['event']) => ['is' => $read['event']['kind']] + $read['event'],
            default => null,
        };
    }

    /** @return list<MappedTable> those of the site's last sheets, the last first */
    private static function known(SiteFile $file): array
    {
        $maps = $file->collector
            ->siteFiles()
            ->where(['kind' => 'events', 'state' => SiteFileState::Read])
            ->latest('id')
            ->limit(self::REMEMBERED)
            ->get(['id', 'map'])
            ->pluck('map')
            ->all();

        return array_map(MappedTable::of(...), array_merge([], ...array_filter($maps)));
    }
}
