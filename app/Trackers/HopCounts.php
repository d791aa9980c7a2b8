<?php

namespace App\Trackers;

use App\Connectors\Line;
use App\Connectors\PlatformTrouble;
use App\Models\Tracker;
use App\Sheets\Files\FirstRows;
use App\Sheets\Files\Opening;
use App\Sheets\Files\Table;
use App\Support\Bulk;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Watch\CountSheet;

/** How many clicks a tracker says it sent on, by day: asked of it, or brought as a sheet. What is said last counts. */
final class HopCounts
{
    private const COLUMNS = ['clicks'];

    /** More days than that are no report of clicks. */
    private const MOST_DAYS = 4000;

    /** Asks a tracker that can be asked. */
    public function ask(Tracker $tracker): void
    {
        $of = config('platforms.trackers')[$tracker->host] ?? null;
        if ($of === null) {
            return;
        }
        try {
            $items = (new Line($tracker->host, $of['address']))->get(
                '/counts',
                ['site' => $tracker->client->slug],
                $of['token'],
            )['items'] ?? [];
        } catch (PlatformTrouble) {
            return; // it is asked again within the hour, of all days
        }
        $days = [];
        foreach (is_array($items) ? $items : [] as $item) {
            if (is_string($item['day'] ?? null) && is_int($item['clicks'] ?? null)) {
                $days[$item['day']] = max(0, $item['clicks']);
            }
        }
        self::keep($tracker, $days);
    }

    /**
     * @return array{days: int, leftOut: array<string, int>} days that are known by it; rows left out, by why
     *
     * @throws UnusableInput it heads no days and clicks, or holds none
     */
    public function bring(Tracker $tracker, string $path, string $name): array
    {
        $days = $leftOut = [];
        foreach (Opening::tables($path, $name) as $table) {
            [$sheet, $at] = self::sheet($table);
            $number = 0;
            foreach ($sheet === null ? [] : $table->rows() as $row) {
                $read = $number++ > $at ? $sheet->read($row) : null;
                if (is_string($read)) {
                    $leftOut[$read] = ($leftOut[$read] ?? 0) + 1;
                } elseif ($read !== null) {
                    $days[$read[0]] = ($days[$read[0]] ?? 0) + $read[1];
                }
                if (count($days) > self::MOST_DAYS) {
                    throw new UnusableInput("{$name} has more than ".self::MOST_DAYS.' days. Bring less of it.');
                }
            }
        }
        if ($days === []) {
            throw new UnusableInput(
                "{$name} has no row with a day and its clicks below a heading. Call the columns “Date” and “Clicks”.",
            );
        }
        self::keep($tracker, $days);

        return ['days' => count($days), 'leftOut' => $leftOut];
    }

    /** @return array{CountSheet|null, int} and the place of its heading row */
    private static function sheet(Table $table): array
    {
        foreach (FirstRows::of($table, HeadingRow::WITHIN) as $at => $row) {
            $sheet = CountSheet::of($row);
            if ($sheet !== null) {
                return [$sheet, $at];
            }
        }

        return [null, 0];
    }

    /** @param array<string, int> $days clicks by day */
    private static function keep(Tracker $tracker, array $days): void
    {
        $rows = [];
        foreach ($days as $day => $clicks) {
            $rows[] = ['tracker_id' => $tracker->id, 'day' => $day, 'clicks' => $clicks];
        }
        $rows === [] || Bulk::upsert('hop_counts', $rows, self::COLUMNS);
    }
}
