<?php

declare(strict_types=1);

namespace Standins\Demo;

use Standins\Store;

/** Ninefold Museum of Clocks: a small team on five platforms. */
final class Museum
{
    private const SHOWS = [
        'Water Clocks',
        'The Longest Second',
        'Pocket Watches 1780–1910',
        'Cuckoos & Other Birds',
    ];

    public static function fill(Store $store, string $site): void
    {
        self::northquay(new Builder($store, 'northquay', 'ninefold', 9900100), $site);
        self::guildloft(new Builder($store, 'guildloft', 'ninefold', 640100), $site);
        self::reedrail(new Builder($store, 'reedrail', 'ninefold', 27001), $site);
        self::bannerloom(new Builder($store, 'bannerloom', 'ninefold', 15500), $site);
        self::hearthring(new Builder($store, 'hearthring', 'ninefold', 7700100), $site);
    }

    private static function northquay(Builder $b, string $site): void
    {
        $account = $b->account(
            'NQ-3310',
            'Ninefold Museum',
            ['clickId' => true],
            ['suffix' => 'utm_source=northquay&utm_medium=cpc&utm_campaign={my.route}&utm_term={term}'],
        );
        foreach (self::SHOWS as $i => $show) {
            $campaign = $b->node(
                $account,
                'campaign',
                $show,
                $i === 3 ? 'video' : 'text',
                $i === 2 ? ['template' => 'https://click.example/r?u={landing.enc}'] : [],
                [],
                $i === 1 ? [] : ['route' => strtolower(str_replace([' ', '&'], ['-', 'and'], $show))],
            );
            foreach (['Visit', 'Gift shop'] as $theme) {
                $group = $b->node(
                    $campaign,
                    'group',
                    "{$show} – {$theme}",
                    null,
                    [],
                    $i === 3
                        ? []
                        : [
                            ['text' => mb_strtolower("{$show} {$theme}"), 'match' => 'phrase'],
                            ['text' => 'clock museum', 'match' => 'broad'],
                        ],
                );
                foreach (range(1, 6) as $n) {
                    $b->node($group, 'ad', "{$show}, text {$n}", null, [
                        'landing' => "{$site}/"
                            .strtolower(str_replace([' ', '–', '&'], ['-', '-', 'and'], $show))
                            .($n % 3 === 0 ? '?book=1' : ''),
                    ]);
                }
            }
        }
    }

    private static function guildloft(Builder $b, string $site): void
    {
        $account = $b->account(
            'GL-12',
            'Ninefold for Restorers',
            ['clickId' => true],
            ['suffix' => 'utm_source=guildloft&utm_medium=social&utm_campaign=<<programme-name>>'],
        );
        foreach (['Courses', 'Symposium'] as $p => $programme) {
            $folder = $b->node($account, 'programme', $programme);
            foreach (['Enamel dials', 'Escapements', 'Gilding'] as $c => $title) {
                $campaign = $b->node(
                    $folder,
                    'campaign',
                    "{$programme}: {$title}",
                    ['visits', 'leads'][$c % 2],
                    $c === 1
                        ? ['suffix' => 'utm_medium=paid_social&utm_campaign=<<Campaign-Name>>']
                        : ($c === 2
                            ? ['suffix' => 'utm_campaign=[campaign:name]&utm_content=<<creative-id>>']
                            : []),
                );
                foreach (range(1, 6) as $n) {
                    $b->node($campaign, 'creative', "{$title}, picture {$n}", null, [
                        'landing' => "{$site}/courses/"
                            .strtolower(str_replace(' ', '-', $title))
                            .($n % 2 === 0 ? '?seat=<<creative-id>>' : ''),
                    ]);
                }
            }
        }
    }

    private static function reedrail(Builder $b, string $site): void
    {
        $account = $b->account(
            'RR-88',
            'Ninefold Reads',
            ['clickId' => true],
            [
                'suffix' => 'utm_source=reedrail&utm_medium=native&utm_campaign=(:campaign_title:)'
                    .'&utm_content=(:teaser:)',
            ],
        );
        foreach (self::SHOWS as $i => $show) {
            $campaign = $b->node(
                $account,
                'campaign',
                "{$show} – reads",
                'content',
                $i === 1
                    ? ['suffix' => 'utm_source=reedrail&utm_medium=native&utm_campaign=(:campaign_name:)']
                    : [],
            );
            foreach (range(1, 10) as $n) {
                $b->node($campaign, 'teaser', "{$show}: teaser {$n}", null, [
                    'landing' => "{$site}/reads/{$i}-{$n}".($n % 4 === 0 ? '?from=(:publisher:)' : ''),
                ]);
            }
        }
    }

    private static function bannerloom(Builder $b, string $site): void
    {
        $account = $b->account('BL-5', 'Ninefold Banners', []);
        foreach (self::SHOWS as $i => $show) {
            $campaign = $b->node($account, 'campaign', $show, 'banner');
            foreach ([['728', '90'], ['300', '250'], ['160', '600']] as $s => [$width, $height]) {
                foreach (['brass', 'night'] as $style) {
                    $query = [
                        '?utm_source=bannerloom&utm_medium=display&utm_campaign=^^campaign^^&utm_content=^^banner^^',
                        '?utm_source=^^site^^&utm_medium=display',
                        '',
                    ][($i + $s) % 3];
                    $b->node(
                        $campaign,
                        'banner',
                        "{$show} {$style} {$width}×{$height}",
                        null,
                        ['landing' => "{$site}/tickets{$query}"],
                        [],
                        [],
                        null,
                        ['width' => $width, 'height' => $height],
                    );
                }
            }
        }
    }

    private static function hearthring(Builder $b, string $site): void
    {
        $account = $b->account('HR-77', 'Ninefold Evenings', []);
        foreach (['Late opening', 'Wind-up Sunday'] as $c => $title) {
            $campaign = $b->node(
                $account,
                'campaign',
                $title,
                'visits',
                [],
                [],
                [],
                $c === 1 ? 'Wind-up Sundays' : null,
            );
            foreach (['Near by', 'Parents'] as $audience) {
                $group = $b->node($campaign, 'audience', "{$title} – {$audience}");
                foreach (range(1, 8) as $n) {
                    $b->node($group, 'post', "{$title}, post {$n}", null, [
                        'suffix' => 'utm_source=hearthring&utm_medium=paid_social&utm_campaign=[campaign:name]'
                            .'&utm_content=[post:id]',
                        'landing' => "{$site}/evenings/{$n}",
                    ]);
                }
            }
        }
    }
}
