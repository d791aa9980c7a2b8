<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Document\Cursor;

/** Platforms that nobody has seen, within what the schema allows. Uses mt_rand: seed it. */
final class RandomDialects
{
    private const MARKS = [
        ['{', '}'],
        ['{{', '}}'],
        ['<<', '>>'],
        ['[', ']'],
        ['~', '~'],
        ['^^', '^^'],
        ['(:', ':)'],
        ['$', '$'],
        ['%', '%'],
        ['-*', '*-'],
        ['x.', '.x'],
    ];

    private const VALUES = [
        'keyword.text' => null,
        'keyword.match' => ['exact' => 'e', 'phrase' => 'p', 'broad' => 'b'],
        'device' => ['desktop' => 'Desk', 'mobile' => 'Hand'],
        'network' => null,
        'placement' => null,
        'publisher.name' => null,
        'campaign.id' => null,
        'campaign.name' => null,
        'group.name' => null,
        'ad.id' => null,
        'ad.name' => null,
        'click.id' => null,
        'product.id' => null,
    ];

    public static function dialect(): Dialect
    {
        return DialectReader::read(new Cursor(self::document()));
    }

    /** @return array<string, mixed> a `vestigon.dialect/1` document */
    public static function document(): array
    {
        $roles = [
            'account',
            ...self::one(5) ? ['folder'] : [],
            'campaign',
            ...self::one(2) ? ['group'] : [],
            'ad',
        ];
        $types = self::pick([['text'], ['text', 'video'], ['text', 'listing', 'video']]);
        [$open, $close] = self::pick(self::MARKS);
        $hasTokens = ! self::one(10);

        return [
            'format' => 'vestigon.dialect/1',
            'id' => 'unseen-'.mt_rand(),
            'title' => 'Unseen',
            'family' => self::pick(['search', 'social', 'native', 'display', 'portal']),
            'levels' => array_map(
                static fn (string $r): array => ['id' => "l-{$r}", 'label' => ucfirst($r), 'role' => $r],
                $roles,
            ),
            'campaignTypes' => $types,
            ...$hasTokens
                ? [
                    'syntax' => [
                        'open' => $open,
                        'close' => $close,
                        'caseSensitive' => self::one(2),
                        'unknown' => self::pick(['keep', 'blank']),
                    ],
                ]
                : ['syntax' => null],
            'tokens' => $hasTokens ? self::tokens($types) : [],
            'customParameters' => $hasTokens && self::one(2)
                    ? [
                        'prefix' => self::pick(['my.', 'own-', '_']),
                        'levels' => self::some(self::levels($roles), 1),
                        'max' => mt_rand(0, 4),
                        'nameLength' => mt_rand(4, 20),
                        'valueLength' => mt_rand(8, 200),
                    ]
                    : null,
            'slots' => self::slots($roles, $types),
            'assembly' => [
                'suffixJoins' => self::pick(['landing', 'click']),
                'mendsQuestionMark' => self::one(2),
                'mendsFragment' => self::one(2),
                'space' => self::pick(['+', '%20']),
            ],
            'delivery' => self::pick([['sequence'], ['parallel'], ['sequence', 'parallel']]),
            'clickId' => self::one(4)
                ? null
                : [
                    'parameter' => 'uncid',
                    'switch' => self::pick(['always', 'account', 'account']),
                    'default' => self::one(2),
                ],
            'autoTags' => self::one(3)
                ? [
                    'modes' => ['off', 'fill', 'replace'],
                    'default' => self::pick(['off', 'fill', 'replace']),
                    'tags' => self::some(
                        [
                            ['key' => 'utm_source', 'text' => 'unseen'],
                            ['key' => 'utm_medium', 'text' => 'cpc'],
                            ['key' => 'utm_campaign', 'field' => 'campaign.name'],
                            ['key' => 'utm_content', 'field' => 'ad.id'],
                        ],
                        1,
                    ),
                ]
                : null,
            'namesFreeze' => self::one(5),
        ];
    }

    /**
     * @param list<string> $types
     * @return list<array<string, mixed>>
     */
    private static function tokens(array $types): array
    {
        $tokens = self::some(
            [
                ['name' => 'page', 'kind' => 'landing', 'encode' => 'auto'],
                ['name' => 'page-raw', 'kind' => 'landing', 'encode' => 0],
                ['name' => 'page-once', 'kind' => 'landing', 'encode' => 1],
                ['name' => 'page-twice', 'kind' => 'landing', 'encode' => 2],
            ],
            1,
        );
        foreach (self::VALUES as $field => $values) {
            if (self::one(2)) {
                $tokens[] = [
                    'name' => str_replace('.', '-', $field),
                    'kind' => 'value',
                    'field' => $field,
                    ...$values === null ? [] : ['values' => $values],
                    ...self::one(5) ? ['campaignTypes' => [$types[0]]] : [],
                    ...self::one(12) ? ['encode' => self::pick([0, 2])] : [],
                ];
            }
        }

        return [
            ...$tokens,
            ...self::one(2)
                ? [['name' => 'on-phones', 'kind' => 'when', 'field' => 'device', 'is' => ['mobile']]]
                : [],
        ];
    }

    /**
     * @param list<string> $roles
     * @param list<string> $types
     * @return list<array<string, mixed>>
     */
    private static function slots(array $roles, array $types): array
    {
        $levels = self::levels($roles);
        $slots = [];
        foreach (['template', 'suffix'] as $kind) {
            if (! self::one(3)) {
                $slots[] = [
                    'kind' => $kind,
                    'levels' => self::some($levels, 1),
                    'inherit' => $kind === 'suffix' ? self::pick(['nearest', 'gather']) : 'nearest',
                    ...$kind === 'suffix'
                        ? ['gatherConflict' => self::pick(['narrowest', 'all'])]
                        : ['needsLanding' => self::one(2)],
                    ...count($types) > 1 && self::one(3) ? ['ignoredFor' => [$types[1]]] : [],
                    ...count($types) > 2 && self::one(3) ? ['levelsFor' => [$types[2] => ['l-campaign']]] : [],
                    ...self::one(2) ? ['maxLength' => mt_rand(60, 600)] : [],
                    ...self::one(3) ? ['reviewed' => true] : [],
                ];
            }
        }

        return [
            ...$slots,
            [
                'kind' => 'landing',
                'levels' => self::one(4) ? [$levels[count($levels) - 2], 'l-ad'] : ['l-ad'],
                'inherit' => 'nearest',
                'tokens' => self::one(2),
                ...self::one(2) ? ['maxLength' => mt_rand(80, 600)] : [],
            ],
        ];
    }

    /**
     * @param list<string> $roles
     * @return list<string>
     */
    private static function levels(array $roles): array
    {
        return array_map(static fn (string $r): string => "l-{$r}", $roles);
    }

    private static function one(int $in): bool
    {
        return mt_rand(1, $in) === 1;
    }

    /**
     * @template T
     *
     * @param non-empty-list<T> $from
     * @return T
     */
    private static function pick(array $from): mixed
    {
        return $from[mt_rand(0, count($from) - 1)];
    }

    /**
     * @template T
     *
     * @param non-empty-list<T> $from
     * @return list<T> in their order
     */
    private static function some(array $from, int $least): array
    {
        $some = array_values(array_filter($from, static fn (): bool => mt_rand(0, 2) > 0));

        return count($some) >= $least ? $some : [self::pick($from)];
    }
}
