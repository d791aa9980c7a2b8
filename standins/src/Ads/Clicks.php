<?php

declare(strict_types=1);

namespace Standins\Ads;

use Standins\BadRequest;
use Standins\Store;

/** Makes clicks on live ads. */
final readonly class Clicks
{
    private const SITES = ['The Harbour Gazette', 'Knots & Weather', 'Sunday Horologist'];

    public function __construct(private Platform $platform, private Store $store) {}

    /**
     * @param array<string, string> $wanted facts of the click: term, match, device, net, placement, surface, chance,
     *     and site: the number of a publisher
     * @return array{id: string, url: string, facts: array<string, string>}
     */
    public function make(string $ad, array $wanted, ?string $account = null): array
    {
        $host = $this->platform->host;
        $row =
            $this->store->rows('select * from nodes where platform = ? and id = ? and level = ?', [
                $host,
                $ad,
                $this->platform->adLevel(),
            ])[0] ?? null;
        if ($row === null || ($account !== null && $row['account'] !== $account)) {
            throw new BadRequest('There is no such ad', 404);
        }
        $account = $row['account'];
        $rows = [];
        while ($row !== null) {
            $rows = [$row['level'] => $row, ...$rows];
            $row =
                $row['parent'] === null
                    ? null
                    : $this->store->rows('select * from nodes where platform = ? and id = ?', [
                        $host,
                        $row['parent'],
                    ])[0] ?? null;
        }
        $settings = json_decode(
            (string) $this->store->rows('select settings from accounts where platform = ? and id = ?', [
                $host,
                $account,
            ])[0]['settings'],
            true,
        );
        $id = $this->platform->clickPrefix.bin2hex(random_bytes(8));
        $site = (int) ($wanted['site'] ?? random_int(0, 2)) % 3;
        $facts = [
            'term' => $wanted['term'] ?? '',
            'match' => $wanted['match'] ?? '',
            'device' => $wanted['device'] ?? 'desktop',
            'net' => $wanted['net'] ?? 'search',
            'placement' => $wanted['placement'] ?? '',
            'surface' => $wanted['surface'] ?? 'stream',
            'publisher' => self::SITES[$site],
            'publisherId' => "site-{$site}",
            'page' => "https://www.gazette.example/story/{$site}?from=home",
            'product' => 'sku-'.$ad,
            'click' => $id,
            'chance' => $wanted['chance'] ?? (string) random_int(100000, 999999),
        ];
        $url = $this->platform->click(new AdPath($rows), $facts, $settings);
        $this->store->run(
            'insert into clicks (id, platform, account, ad, keyword, url, at) values (?, ?, ?, ?, ?, ?, ?)',
            [$id, $host, $account, $ad, $facts['term'], $url, gmdate('c')],
        );

        return ['id' => $id, 'url' => $url, 'facts' => $facts];
    }
}
