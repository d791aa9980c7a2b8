<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Sheet;

use Vestigon\Core\Sheet\DayOrder;
use Vestigon\Core\Sheet\FigureCell;
use Vestigon\Core\Watch\Instant;

/** Reads times out of cells, as reports write them. */
final readonly class Moments
{
    private const TIME = '/[ T](?<h>\d\d?):(?<m>\d\d)(?::(?<s>\d\d)(?:\.\d+)?)?(?:\s*(?<half>[ap])\.?m\.?)?$/i';

    private FigureCell $days;

    /** @param DayOrder|null $order null: a day that could be two is none */
    public function __construct(private \DateTimeZone $zone, private ?DayOrder $order)
    {
        $this->days = new FigureCell('.', $order);
    }

    /** @return int|null with its offset, or in the zone; a day alone is its noon. Null: it is no time */
    public function read(string $cell): ?int
    {
        $exact = Instant::read($cell);
        if ($exact !== null) {
            return $exact;
        }
        $hasTime = preg_match(self::TIME, $cell, $at) === 1;
        $day = $this->days->day($hasTime ? substr($cell, 0, -strlen($at[0])) : $cell);
        $time = $hasTime ? self::time($at) : [12, 0, 0];
        if ($day === null || $time === null) {
            return null;
        }
        $local = \DateTimeImmutable::createFromFormat(
            'Y-m-d H:i:s',
            sprintf('%s %02d:%02d:%02d', $day, ...$time),
            $this->zone,
        );

        return $local === false ? null : $local->getTimestamp() * 1000;
    }

    /** Would it be a time, if only the order of day and month were known? */
    public function couldBeTwo(string $cell): bool
    {
        return $this->order === null && (new self($this->zone, DayOrder::Day))->read($cell) !== null;
    }

    /**
     * @param array<array-key, string> $at
     * @return array{int, int, int}|null of a day of 24 hours; null: no day has it
     */
    private static function time(array $at): ?array
    {
        [$hour, $minute, $second] = [(int) $at['h'], (int) $at['m'], (int) ($at['s'] ?? 0)];
        $half = strtolower($at['half'] ?? '');
        if ($half !== '' && ($hour < 1 || $hour > 12) || $hour > 23 || $minute > 59 || $second > 59) {
            return null;
        }
        // noon is 12 p.m., midnight 12 a.m.
        $hour = $half === '' ? $hour : $hour % 12 + ($half === 'p' ? 12 : 0);

        return [$hour, $minute, $second];
    }
}
