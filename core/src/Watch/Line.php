<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** One line of a report, as it is added up. Money is in minor units, by currency. */
final class Line
{
    public int $sessions = 0;

    public int $newVisitors = 0;

    public int $onePage = 0;

    public int $views = 0;

    /** in millionths */
    public int $conversions = 0;

    public int $impressions = 0;

    public int $clicks = 0;

    /** @var array<string, int> */
    public array $revenue = [];

    /** @var array<string, int> with what was taken back taken away */
    public array $net = [];

    /** @var array<string, int> */
    public array $cost = [];

    /** @param array<string, string> $by what it is the line of */
    public function __construct(public readonly array $by) {}

    /**
     * @param array<string, int> $sums
     */
    public static function add(array &$sums, ?string $currency, int $value): void
    {
        if ($currency !== null) {
            $sums[$currency] = ($sums[$currency] ?? 0) + $value;
        }
    }

    /** All of another line too. */
    public function addAll(self $other): void
    {
        $this->sessions += $other->sessions;
        $this->newVisitors += $other->newVisitors;
        $this->onePage += $other->onePage;
        $this->views += $other->views;
        $this->conversions += $other->conversions;
        $this->impressions += $other->impressions;
        $this->clicks += $other->clicks;
        foreach (['revenue', 'net', 'cost'] as $sums) {
            foreach ($other->{$sums} as $currency => $value) {
                self::add($this->{$sums}, $currency, $value);
            }
        }
    }

    /** What is left of it without another one, which is a part of it. */
    public function without(self $part): self
    {
        $rest = new self($this->by);
        foreach (['sessions', 'newVisitors', 'onePage', 'views', 'conversions', 'impressions', 'clicks'] as $count) {
            $rest->{$count} = $this->{$count} - $part->{$count};
        }
        $rest->revenue = self::less($this->revenue, $part->revenue);
        $rest->net = self::less($this->net, $part->net);
        $rest->cost = self::less($this->cost, $part->cost);

        return $rest;
    }

    /**
     * @param array<string, int> $sums
     * @param array<string, int> $part
     * @return array<string, int>
     */
    private static function less(array $sums, array $part): array
    {
        foreach ($sums as $currency => $sum) {
            $sums[$currency] = $sum - ($part[$currency] ?? 0);
        }

        return $sums;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $conversions = $this->conversions / Share::WHOLE;

        return [
            'by' => (object) $this->by,
            'impressions' => $this->impressions,
            'clicks' => $this->clicks,
            'sessions' => $this->sessions,
            'newVisitors' => $this->newVisitors,
            'onePage' => $this->onePage,
            'views' => $this->views,
            'conversions' => $conversions,
            'revenue' => (object) $this->revenue,
            'net' => (object) $this->net,
            'cost' => (object) $this->cost,
            'rates' => [
                'conversion' => self::rate($conversions, $this->sessions),
                'onePage' => self::rate($this->onePage, $this->sessions),
                'viewsEach' => self::rate($this->views, $this->sessions),
                'costPerClick' => (object) self::rates($this->cost, $this->clicks),
                'costPerSession' => (object) self::rates($this->cost, $this->sessions),
                'costPerConversion' => (object) self::rates($this->cost, $conversions),
                'revenueByCost' => (object) $this->byCost(),
            ],
        ];
    }

    /** @return float|null null: there is nothing to divide by */
    private static function rate(float|int $of, float|int $by): ?float
    {
        return (float) $by === 0.0 ? null : $of / $by;
    }

    /**
     * @param array<string, int> $sums
     * @return array<string, float|null>
     */
    private static function rates(array $sums, float|int $by): array
    {
        return array_map(static fn (int $sum): ?float => self::rate($sum, $by), $sums);
    }

    /** @return array<string, float|null> */
    private function byCost(): array
    {
        $rates = [];
        foreach ($this->cost as $currency => $cost) {
            $rates[$currency] = self::rate($this->revenue[$currency] ?? 0, $cost);
        }

        return $rates;
    }
}
