<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** The days, weeks and months of a time zone: days of 23 and 25 hours too. */
final class Days
{
    /** Clocks are put forward and back at whole quarters of an hour, in all zones since 1972. */
    private const QUARTER = 900_000;

    /** @var array<int, string> by quarter of an hour */
    private array $known = [];

    private readonly \DateTimeZone $zone;

    /** @throws \InvalidArgumentException there is no such zone */
    public function __construct(string $zone)
    {
        try {
            $this->zone = new \DateTimeZone($zone);
        } catch (\Exception) {
            throw new \InvalidArgumentException("there is no time zone \"{$zone}\"");
        }
    }

    /** `2026-10-05` */
    public function day(int $at): string
    {
        $quarter = intdiv($at, self::QUARTER);
        if (! isset($this->known[$quarter])) {
            $this->known = count($this->known) > 50_000 ? [] : $this->known;
            $this->known[$quarter] = (new \DateTimeImmutable('@'.intdiv($quarter * self::QUARTER, 1000)))
                ->setTimezone($this->zone)
                ->format('Y-m-d');
        }

        return $this->known[$quarter];
    }

    /** `2026-W41`, weeks as ISO 8601 counts them, of a day as above. */
    public static function week(string $day): string
    {
        return (new \DateTimeImmutable($day))->format('o-\WW');
    }

    /** `2026-10`, of a day as above. */
    public static function month(string $day): string
    {
        return substr($day, 0, 7);
    }
}
