<?php

declare(strict_types=1);

namespace Standins\Demo;

use Standins\Store;

/**
 * Velmar Ferries beyond Northquay: a second search platform, posts, native items and an old portal, each tracked by
 * somebody else.
 */
final class Holidays
{
    private const ISLANDS = ['Skerrow', 'Orrin', 'Halvey', 'Tarnsay', 'Lunnet', 'Braeholm'];

    private const KEYWORDS = [
        'holiday on {i}',
        '{i} cottage & boat',
        '{i} weekend',
        'family trip {i}',
        'ferry and hotel {i}',
    ];

    public static function fill(Store $store, string $site): void
    {
        self::pellworth(new Builder($store, 'pellworth', 'velmar', 88010), $site);
        self::hearthring(new Builder($store, 'hearthring', 'velmar', 5200100), $site);
        self::mossfeed(new Builder($store, 'mossfeed', 'velmar', 31001), $site);
        self::oldgate(new Builder($store, 'oldgate', 'velmar', 901), $site);
    }

    private static function pellworth(Builder $b, string $site): void
    {
        $account = $b->account(
            'PW-118',
            'Velmar Holidays',
            ['autoTags' => 'fill', 'clickId' => false],
            [
                'template' => '{LandingPage}?utm_source=pellworth&utm_medium=cpc&utm_campaign={CampaignTitle}'
                    .'&utm_term={SearchPhrase}',
            ],
        );
        foreach (self::ISLANDS as $i => $island) {
            $slots =
                [
                    1 => ['template' => '{LandingPage}&utm_source=Pellworth&utm_medium=cpc'],
                    3 => ['template' => '{LandingPage}?utm_source=pellworth&utm_term={term}'],
                    4 => ['template' => '{LandingPage}#from-pellworth'],
                ][$i] ?? [];
            $campaign = $b->node(
                $account,
                'campaign',
                ["Holidays {$island}", "{$island} Weekend 2027", "{$island} | Cottages"][$i % 3],
                'text',
                $slots,
            );
            foreach (['Couples', 'Families'] as $theme) {
                $keywords = array_map(
                    static fn (string $k, int $n): array => [
                        'text' => mb_strtolower(str_replace('{i}', $island, $k)),
                        'match' => ['exact', 'phrase', 'broad'][$n % 3],
                    ],
                    self::KEYWORDS,
                    array_keys(self::KEYWORDS),
                );
                $group = $b->node($campaign, 'group', "{$island} {$theme}", null, [], $keywords);
                foreach (
                    [
                        "{$island} for {$theme}",
                        "Boat and bed on {$island}",
                        "Three nights on {$island}",
                        "{$island}: the quiet side",
                    ] as $n => $name
                ) {
                    foreach (['A', 'B', 'C'] as $v => $variant) {
                        $b->node($group, 'ad', "{$name} {$variant}", null, [
                            'landing' => "{$site}/holidays/"
                                .strtolower($island)
                                .['', '?nights=3', '#rooms', '?utm_source=letter'][($n + $v) % 4],
                        ]);
                    }
                }
            }
        }
    }

    private static function hearthring(Builder $b, string $site): void
    {
        $account = $b->account('HR-40', 'Velmar Ferries by the Fire', []);
        foreach (['Summer Islands', 'Puffin Season', 'Night Boat', 'Island Food Week'] as $c => $title) {
            $campaign = $b->node(
                $account,
                'campaign',
                $title,
                ['visits', 'sales'][$c % 2],
                [],
                [],
                [],
                [1 => 'Puffin Seson', 2 => 'Night Boat TEST'][$c] ?? null,
            );
            foreach (['Lookalikes', 'Been aboard', 'Hikers'] as $a => $audience) {
                $group = $b->node($campaign, 'audience', "{$title} – {$audience}");
                foreach (
                    [
                        'Deck at dawn',
                        'Two puffins',
                        'Soup in the galley',
                        'Captain waves',
                        'Island map',
                        'Rain on Orrin',
                    ] as $p => $post
                ) {
                    $suffix = [
                        'utm_source=hearthring&utm_medium=paid_social&utm_campaign=[campaign:name]'
                        .'&utm_content=[post:name]',
                        'utm_source=Hearthring&utm_medium=social&utm_campaign=[Campaign:Name]',
                        '',
                        'utm_source=hearthring&utm_medium=paid_social&utm_campaign=summer-islands&utm_content=[post:id',
                    ][($c + $a + intdiv($p, 2)) % 4];
                    $b->node(
                        $group,
                        'post',
                        $post,
                        null,
                        array_filter([
                            'suffix' => $suffix,
                            'landing' => "{$site}/stories/"
                                .strtolower(str_replace(' ', '-', $post))
                                .($p === 4 ? '#map' : ''),
                        ]),
                        [],
                        [],
                        $p === 3 ? 'Captain weaves' : null,
                    );
                }
            }
        }
    }

    private static function mossfeed(Builder $b, string $site): void
    {
        $account = $b->account('MF-7', 'Velmar Travel Stories', []);
        foreach (['Reasons to sail', 'Island people', 'What to pack', 'Weather tales'] as $c => $title) {
            $suffix = [
                '?utm_source=mossfeed&utm_medium=native&utm_campaign=~campaign~&utm_content=~item~',
                'utm_source=mossfeed&utm_medium=native&utm_campaign=reasons_to_sail&h=~headline',
                'utm_source=mossfeed&utm_medium=CPC&utm_campaign=~campaign_id~',
                '',
            ][$c];
            $campaign = $b->node($account, 'campaign', $title, 'content', array_filter(['suffix' => $suffix]));
            foreach (self::ISLANDS as $island) {
                foreach (
                    [
                        '9 reasons to sail to {i}',
                        'They moved to {i} & stayed',
                        'What nobody tells you about {i}',
                        '{i} in the rain: a love story',
                    ] as $n => $name
                ) {
                    $b->node($campaign, 'item', str_replace('{i}', $island, $name), null, [
                        'landing' => "{$site}/stories/".strtolower($island).($n === 2 ? '?chapter=2' : ''),
                    ]);
                }
            }
        }
    }

    private static function oldgate(Builder $b, string $site): void
    {
        $account = $b->account('OG-3', 'Velmar in the Oldgate Directory', []);
        foreach (['Ferries A–Z', 'Freight A–Z'] as $c => $title) {
            $campaign = $b->node($account, 'campaign', $title, 'text');
            foreach (array_slice(self::ISLANDS, 0, 4) as $i => $island) {
                $group = $b->node(
                    $campaign,
                    'group',
                    "{$island} entries",
                    null,
                    $i % 2 === 0
                        ? [
                            'landing' => "{$site}/".strtolower($island).'?utm_source=oldgate&utm_medium=listing',
                        ]
                        : [],
                );
                foreach (['Directory entry', 'Map entry', 'Top entry'] as $n => $name) {
                    $b->node(
                        $group,
                        'ad',
                        "{$island} {$name}",
                        null,
                        $i % 2 === 0 && $n > 0
                            ? []
                            : [
                                'landing' => "{$site}/"
                                    .strtolower($island)
                                    .[
                                        '?utm_source=Oldgate&utm_medium=listing&utm_campaign=^^banner^^',
                                        '',
                                        '?utm_source=oldgate&utm_medium=portal',
                                    ][($n + $c) % 3],
                            ],
                    );
                }
            }
        }
    }
}
