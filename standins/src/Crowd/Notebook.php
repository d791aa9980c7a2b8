<?php

declare(strict_types=1);

namespace Standins\Crowd;

use Standins\Store;

/** Writes down what is to happen, and when. Instants are in milliseconds. */
final class Notebook
{
    /** @var array<string, \PDOStatement> */
    private array $statements = [];

    public function __construct(private readonly Store $store) {}

    public static function instant(int $ms): string
    {
        return gmdate('Y-m-d\TH:i:s', intdiv($ms, 1000)).sprintf('.%03dZ', $ms % 1000);
    }

    public function shown(Advert $advert, string $day, int $impressions): void
    {
        $this->insert('shown', [$advert->platform->host, $advert->account, $advert->id, $day, $impressions]);
    }

    /**
     * @param array{id: string, url: string, keyword: string, placement: string, device: string} $click
     * @param int $late so many days later the platform counts it
     */
    public function click(Advert $advert, array $click, int $at, int $cost, int $late, string $fate): void
    {
        $this->insert('clicks', [
            $click['id'],
            $advert->platform->host,
            $advert->account,
            $advert->id,
            $click['keyword'],
            $click['url'],
            self::instant($at),
            $click['placement'],
            $click['device'],
            $cost,
            $late,
            $fate,
        ]);
    }

    public function visit(Visit $visit, string $site, ?string $visitor, string $device): void
    {
        foreach ($visit->seen as $seen) {
            $this->coming(
                $seen['at'],
                $seen['at'],
                $seen['url'],
                $seen['referrer'],
                $site,
                $visitor,
                $device,
                $seen['detail'],
            );
        }
    }

    /**
     * @param int $told when it becomes known
     * @param int $at when it was
     * @param array<string, mixed>|null $detail of what is no view
     */
    public function coming(
        int $told,
        int $at,
        string $url,
        string $referrer,
        string $site,
        ?string $visitor,
        ?string $device,
        ?array $detail,
    ): void {
        $this->insert('coming', [
            self::instant($told),
            self::instant($at),
            $url,
            $referrer,
            $site,
            $visitor,
            $device,
            $detail === null ? null : json_encode($detail, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES),
        ]);
    }

    /** The platform says that its ad has brought an order. */
    public function claim(Advert $advert, string $day, int $at, int $value): void
    {
        $this->insert('claims', [
            $advert->platform->host,
            $advert->account,
            $advert->id,
            $day,
            self::instant($at),
            $value,
        ]);
    }

    public function refund(string $site, string $order, int $at, int $value): void
    {
        $this->insert('refunds', [null, $site, $order, self::instant($at), $value]);
    }

    /** @param list<mixed> $values */
    private function insert(string $table, array $values): void
    {
        $this->statements[$table] ??= $this->store->pdo->prepare(
            "insert into {$table} values (".implode(', ', array_fill(0, count($values), '?')).')',
        );
        $this->statements[$table]->execute($values);
    }
}
