<?php

declare(strict_types=1);

namespace Standins\Crowd;

use Standins\Ads\AdPath;
use Standins\Ads\Platform;

/** A live ad, as people meet it. */
final readonly class Advert
{
    private const SITES = ['The Harbour Gazette', 'Knots & Weather', 'Sunday Horologist'];

    /**
     * @param list<array{text: string, match: string}> $keywords
     * @param array<string, mixed> $settings of the account
     * @param float $draw how many click it on an ordinary day
     * @param int $price of a click, in cents
     */
    public function __construct(
        public Platform $platform,
        public string $account,
        public string $id,
        public string $site,
        private AdPath $path,
        private array $keywords,
        private array $settings,
        public float $draw,
        public int $price,
    ) {}

    /** @return array{id: string, url: string, keyword: string, placement: string, device: string} a click on it */
    public function click(Chance $chance): array
    {
        $keyword = $this->keywords === [] ? ['text' => '', 'match' => ''] : $chance->oneOf($this->keywords);
        $site = $chance->between(0, 2);
        $facts = [
            'term' => $keyword['text'],
            'match' => $keyword['match'],
            'device' => $chance->oneOf(['mobile', 'mobile', 'mobile', 'desktop', 'desktop', 'tablet']),
            'net' => $chance->oneOf(['search', 'search', 'partner', 'display']),
            'placement' => $this->keywords === [] ? $chance->oneOf(['home', 'article', 'sidebar']) : '',
            'surface' => 'stream',
            'publisher' => self::SITES[$site],
            'publisherId' => "site-{$site}",
            'page' => "https://www.gazette.example/story/{$site}?from=home",
            'product' => 'sku-'.$this->id,
            'click' => $this->platform->clickPrefix.$chance->word().$chance->word(),
            'chance' => (string) $chance->between(100_000, 999_999),
        ];

        return [
            'id' => $facts['click'],
            'url' => $this->platform->click($this->path, $facts, $this->settings),
            'keyword' => $facts['term'],
            'placement' => $facts['placement'],
            'device' => $facts['device'],
        ];
    }
}
