<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

use Vestigon\Core\Sheet\Cells;
use Vestigon\Core\Sheet\FigureCell;
use Vestigon\Core\Sheet\Headings;

/** Reads out of a sheet how many clicks a tracker sent on: each row a day, or part of one. */
final readonly class CountSheet
{
    /** As click trackers head their columns (common practice, no source). */
    private const HEADINGS = [
        'day' => ['day', 'date'],
        'clicks' => ['clicks', 'click count', 'redirects', 'hits', 'visits', 'count', 'total clicks', 'sent on'],
    ];

    /**
     * @param array{day: int, clicks: int} $places
     * @param non-empty-list<FigureCell> $figures clicks have no parts: either mark stands between thousands
     */
    private function __construct(private array $places, private array $figures, private Cells $cells) {}

    /**
     * @param list<string|int|float|null> $row
     * @return self|null null: it does not head a column of days and one of clicks
     */
    public static function of(array $row): ?self
    {
        $places = [];
        foreach ($row as $place => $cell) {
            $heading = strtr(Headings::folded((string) $cell), ['_' => ' ', '-' => ' ']);
            foreach (self::HEADINGS as $what => $headings) {
                if (in_array($heading, $headings, true)) {
                    $places += [$what => $place];
                }
            }
        }

        return isset($places['day'], $places['clicks'])
            ? new self($places, [new FigureCell('.'), new FigureCell(',')], new Cells())
            : null;
    }

    /**
     * @param list<string|int|float|null> $row
     * @return array{string, int}|string|null the day (YYYY-MM-DD) and its clicks; a word: why it can't be taken; null:
     *     it says nothing
     */
    public function read(array $row): array|string|null
    {
        [$day, $raw] = [$row[$this->places['day']] ?? null, $row[$this->places['clicks']] ?? null];
        [$dayCell, $cell] = [$this->cells->text($day), $this->cells->text($raw)];
        if ($dayCell === '' && $cell === '') {
            return null;
        }
        $at = $this->figures[0]->day($dayCell);
        $clicks = $this->whole($cell, $raw);

        return match (true) {
            $at === null => 'no-day',
            $clicks === null => 'no-count',
            default => [$at, $clicks],
        };
    }

    private function whole(string $cell, string|int|float|null $raw): ?int
    {
        foreach ($this->figures as $figures) {
            $number = (string) $figures->number($cell, $raw);
            if (preg_match('/^\d{1,15}$/D', $number) === 1) {
                return (int) $number;
            }
        }

        return null;
    }
}
