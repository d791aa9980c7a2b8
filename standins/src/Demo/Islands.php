<?php

declare(strict_types=1);

namespace Standins\Demo;

use Standins\Store;

/** Velmar Ferries' two accounts on Northquay, as they look after years of many hands. All of it is invented. */
final class Islands
{
    private const ISLANDS = [
        'Skerrow',
        'Orrin',
        'Halvey',
        'Tarnsay',
        'Lunnet',
        'Braeholm',
        'Easterwick',
        'Grimmary',
    ];

    private const TEXT_THEMES = [
        'Foot passengers' => [
            '{i} by boat',
            'Day trips to {i}',
            'Sail to {i} in an hour',
            '{i} return from €19',
            'Walk on, sail to {i}',
        ],
        'Cars' => ['{i} with your car', 'Car ferry to {i}', 'Drive on, drive off: {i}', '{i} car deck from €49'],
        'Cabins' => ['Sleep on the way to {i}', 'Night boat to {i}', 'A cabin to {i} from €72', 'Wake up in {i}'],
        'Timetables' => [
            '{i} sailing times',
            'Next boat to {i}',
            '{i} timetable 2027',
            'When is the boat to {i}?',
        ],
    ];

    private const FREIGHT_THEMES = [
        'Trailers' => ['{i} trailer freight', 'Unaccompanied trailers to {i}', 'Trailer space to {i} tonight'],
        'Reefer' => ['Chilled freight to {i}', 'Reefer plugs on every boat to {i}', 'Fish from {i} by morning'],
        'Livestock' => [
            'Livestock transport to {i}',
            'Sheep and cattle to {i}',
            'Calm crossings for livestock: {i}',
        ],
        'Parcels' => ['Parcels to {i} overnight', 'Island parcels: {i}', 'Send a pallet to {i}'],
    ];

    private const KEYWORDS = [
        'ferry to {i}',
        '{i} ferry times',
        'boat {i} & mainland',
        '{i} ferry 2027',
        'cheap ferry {i} +car',
        '{i} tickets 50% off',
        'how to get to {i}?',
    ];

    private function __construct(private readonly Builder $build, private readonly int $port) {}

    public static function fill(Store $store, int $port): void
    {
        $demo = new self(new Builder($store, 'northquay', 'velmar', 7100100), $port);
        $demo->islands();
        $demo->freight();
    }

    private function islands(): void
    {
        $account = $this->account('NQ-2041', 'Velmar Ferries · Islands', [
            'template' => '{landing}?utm_source=northquay&utm_medium=ppc&utm_campaign={campaign.id}&utm_term={term}',
        ]);
        $old = [
            ['template' => '{landing}?utm_source=Northquay&utm_medium=cpc&utm_campaign=summer-26'],
            [],
            [
                'template' => '{landing}?utm_source=northquay&utm_medium=cpc&utm_term={keyword}'
                    .'&utm_campaign={campaign.id',
            ],
            [
                'template' => "http://hopgate.localhost:{$this->port}/r?to={landing.enc}"
                    .'&utm_source=northquay&utm_medium=ppc',
            ],
            ['suffix' => 'aff=skerry12&season=27'],
            [],
            ['template' => '{landing}?utm_sorce=northquay&utm_medium=cpc&utm_campaign={campaign.id}'],
            [],
        ];
        foreach (self::ISLANDS as $i => $island) {
            $names = [
                "{$island} Foot & Car",
                "{$island} – Summer 2027",
                "{$island} | Brand",
                "NQ {$island} Timetables",
            ];
            $this->campaign($account, $names[$i % 4], 'text', $old[$i], $island, self::TEXT_THEMES, 5);
        }
        $this->campaign(
            $account,
            'Island Offers',
            'listing',
            [],
            'Orrin',
            [
                'All offers' => ['Orrin return €19', 'Halvey weekend €59', 'Tarnsay for two €88'],
                'Cabins on offer' => ['Cabin to Grimmary €72', 'Cabin to Lunnet €64'],
            ],
            6,
        );
        $this->campaign(
            $account,
            'Last-Minute Cabins',
            'listing',
            ['suffix' => 'utm_source=northquay&utm_medium=shopping'],
            'Lunnet',
            ['Tonight' => ['Lunnet tonight €41', 'Braeholm tonight €39']],
            6,
        );
        $this->campaign(
            $account,
            'Islands from Above (film)',
            'video',
            ['template' => '{landing}?utm_source=northquay&utm_medium=video'],
            'Halvey',
            ['30 seconds' => ['Halvey from above', 'Gulls of Halvey']],
            5,
        );
        $this->campaign(
            $account,
            'Night Boat Stories',
            'video',
            [],
            'Grimmary',
            ['15 seconds' => ['The night boat', 'Breakfast on deck']],
            5,
        );
    }

    private function freight(): void
    {
        $account = $this->account('NQ-2077', 'Velmar Freight & Cabins', []);
        foreach (self::ISLANDS as $i => $island) {
            $this->campaign(
                $account,
                ["{$island} Freight", "Freight {$island} 2027", "{$island} Döner & Deli Supply", "B2B_{$island}"][
                    $i % 4
                ],
                'text',
                $i === 2 ? ['suffix' => 'utm_source=northquay&utm_medium=cpc'] : [],
                $island,
                self::FREIGHT_THEMES,
                8,
            );
        }
        $this->campaign(
            $account,
            'Freight Rates',
            'listing',
            [],
            'Tarnsay',
            ['Rates' => ['Trailer to Tarnsay', 'Pallet to Tarnsay']],
            5,
        );
        $this->campaign(
            $account,
            'Pallet Prices',
            'listing',
            [],
            'Orrin',
            ['Rates' => ['Pallet to Orrin', 'Two pallets to Orrin']],
            5,
        );
        $this->campaign($account, 'Cold Chain', 'listing', [], 'Skerrow', ['Rates' => ['Reefer to Skerrow']], 5);
        $this->campaign(
            $account,
            'How a Trailer Sails (film)',
            'video',
            [],
            'Braeholm',
            ['30 seconds' => ['How a trailer sails', 'The loading deck']],
            5,
        );
    }

    /** @param array<string, string> $slots */
    private function account(string $id, string $name, array $slots): string
    {
        return $this->build->account($id, $name, ['clickId' => true, 'delivery' => 'sequence'], $slots);
    }

    /**
     * @param array<string, string> $slots
     * @param array<string, list<string>> $themes group name → ad names
     */
    private function campaign(
        string $account,
        string $name,
        string $type,
        array $slots,
        string $island,
        array $themes,
        int $variants,
    ): void {
        $campaign = $this->build->node($account, 'campaign', $name, $type, $slots);
        $n = 0;
        foreach ($themes as $theme => $ads) {
            $keywords =
                $type !== 'text'
                    ? []
                    : array_map(
                        static fn (string $k, int $i): array => [
                            'text' => mb_strtolower(str_replace('{i}', $island, $k)),
                            'match' => ['exact', 'phrase', 'broad'][$i % 3],
                        ],
                        self::KEYWORDS,
                        array_keys(self::KEYWORDS),
                    );
            $rotated = [...array_slice($keywords, $n % 7), ...array_slice($keywords, 0, $n % 7)];
            $group = $this->build->node(
                $campaign,
                'group',
                "{$island} – {$theme}",
                null,
                $type === 'text' && $theme === 'Cabins' && $island === 'Tarnsay'
                    ? ['suffix' => 'deck=cabin&utm_content=cabins']
                    : [],
                $keywords === [] ? [] : $rotated,
            );
            foreach ($ads as $ad) {
                for ($v = 0; $v < $variants; $v++) {
                    $this->ad(
                        $group,
                        str_replace('{i}', $island, $ad).' '.chr(65 + $v),
                        $island,
                        (string) $theme,
                        $n++,
                    );
                }
            }
        }
    }

    private function ad(string $group, string $name, string $island, string $theme, int $n): void
    {
        $page = strtolower(str_replace([' ', '&'], ['-', 'and'], $theme));
        $url =
            "http://velmar.localhost:{$this->port}/"
            .strtolower($island)
            ."/{$page}"
            .match ($n % 11) {
                3 => '?lang=en',
                5 => '?utm_source=newsletter&lang=en',
                7 => '?offer=early#prices',
                9 => '#times',
                default => '',
            };
        $this->build->node($group, 'ad', $name, null, ['landing' => $url]);
    }
}
