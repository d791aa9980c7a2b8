<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\AutoTagMode;
use Vestigon\Core\Dialect\Delivery;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Plan\Variant;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/** Small accounts and plans on any platform, with all that people and chance put into them. Uses mt_rand: seed it. */
final class RandomAccounts
{
    private const NAMES = [
        'Summer Sale',
        'summer_sale',
        'brand',
        'a & b',
        'Äußere Inseln',
        'utm_source',
        'h',
        '',
        'x%41',
        "bad\xFFbytes",
        '71',
        '日本',
        'a+b',
        'cpc',
        'a__b',
        '_x',
    ];

    private const LITERALS = [
        'utm_source=nq',
        'utm_medium=cpc',
        'utm_medium=CPC',
        'utm_campaign=summer_sale',
        'utm_content=71',
        'ref=1',
        'x',
        'utm_source=a%26b',
        '=',
        'utm_term',
        'k=%2541',
    ];

    /** the query that keeps a plan, as far as tokens can */
    private static ?string $right = null;

    /** @param array<mixed> $from */
    private static function pick(array $from): mixed
    {
        return $from[array_keys($from)[mt_rand(0, count($from) - 1)]];
    }

    /** @param Plan|null $plan half of the texts try to keep it, more or less */
    public static function account(Dialect $dialect, ?Plan $plan = null): Account
    {
        self::$right = $plan === null ? null : self::right($dialect, $plan);
        $nodes = [];
        $parents = [];
        $grow = static function (?string $parent, int $depth) use (&$grow, &$nodes, &$parents, $dialect): void {
            $level = $dialect->levels[$depth] ?? null;
            if ($level === null) {
                return;
            }
            for ($i = 0, $n = $depth === 0 ? 1 : mt_rand(1, $level->role === Role::Ad ? 4 : 2); $i < $n; $i++) {
                $key = "n{$depth}-".count($nodes);
                $node = self::node($dialect, $level->id, $level->role, $key);
                $nodes[$key] = self::isTaken($node, $nodes) ? $node->withId($key) : $node;
                $parents[$key] = $parent;
                $grow($key, $depth + 1);
            }
        };
        $grow(null, 0);
        $settings = new Settings(
            self::pick([null, true, false]),
            $dialect->autoTags === null ? null : self::pick([null, AutoTagMode::Fill, AutoTagMode::Replace]),
            self::pick([null, Delivery::Parallel]),
        );

        return new Account(
            $dialect,
            $settings,
            [
                new Hop(
                    'h.example',
                    'to',
                    mt_rand(0, 1) === 1,
                    mt_rand(0, 2) === 0 ? [['utm_source', 'hop']] : [],
                ),
                new Hop('k.example', 'u', mt_rand(0, 3) > 0),
            ],
            $nodes,
            $parents,
        );
    }

    /** @param array<string, Node> $nodes */
    private static function isTaken(Node $node, array $nodes): bool
    {
        foreach ($nodes as $other) {
            if ([$other->level, $other->id] === [$node->level, $node->id]) {
                return true; // a platform numbers the elements of a level
            }
        }

        return false;
    }

    private static function node(Dialect $dialect, string $level, Role $role, string $key): Node
    {
        $slots = [];
        foreach ($dialect->slots as $slot) {
            if (in_array($level, $slot->levels, true)) {
                if ($slot->kind->value === 'landing') {
                    $slots['landing'] =
                        $role === Role::Ad || mt_rand(0, 1) === 1 ? self::landing($dialect, $slot->tokens) : null;
                } elseif (mt_rand(0, 2) === 0) {
                    $slots[$slot->kind->value] =
                        $slot->kind->value === 'template' ? self::template($dialect) : self::query($dialect);
                }
            }
        }
        $custom =
            in_array($level, $dialect->customParameters->levels ?? [], true) && mt_rand(0, 2) === 0
                ? [self::pick(['n', 'M']) => self::pick([...self::NAMES, self::token($dialect)])]
                : [];

        return new Node(
            $level,
            mt_rand(0, 5) === 0 ? self::pick(['a b', 'A-1', $key]) : $key,
            self::pick(self::NAMES),
            $role === Role::Campaign ? self::pick($dialect->campaignTypes) : null,
            array_filter($slots, static fn (?string $s): bool => $s !== null),
            $custom,
            $role === Role::Ad && mt_rand(0, 1) === 1
                ? ['width' => '728', 'height' => self::pick(['90', 'tall & thin'])]
                : [],
            mt_rand(0, 3) === 0 ? self::pick(self::NAMES) : null,
        );
    }

    private static function landing(Dialect $dialect, bool $tokens): string
    {
        $base = self::pick([
            'https://v.example/b',
            'https://v.example/b?lang=en',
            'https://v.example/b?utm_source=z',
            'https://v.example/b?a=1#top',
            'https://v.example/b#x',
            'http://h.example/r?to=https%3A%2F%2Fv.example%2F',
            '/b',
            ' ',
        ]);

        return $tokens && mt_rand(0, 2) > 0
            ? $base.(str_contains($base, '?') ? '&' : '?').self::query($dialect)
            : $base;
    }

    private static function template(Dialect $dialect): string
    {
        $landings = array_values(
            array_filter($dialect->tokens, static fn ($t): bool => $t->kind === TokenKind::Landing),
        );
        $landing = $landings === [] ? '' : $dialect->written(self::pick($landings)->name);

        return self::pick([
            $landing,
            $landing.'?',
            $landing.'?',
            $landing.'?',
            $landing.'&',
            'https://h.example/r?to='.$landing.'&',
            'https://h.example/r?to='.$landing.'%26',
            'https://h.example/r?to=https%3A%2F%2Fk.example%2Fgo%3Fu%3D'.$landing.'&',
            'https://'.self::token($dialect).'.example/r?to='.$landing.'&',
            '',
        ]).self::query($dialect);
    }

    private static function query(Dialect $dialect): string
    {
        if (self::$right !== null && mt_rand(0, 5) > 0) {
            return self::$right
                .(mt_rand(0, 2) === 0
                    ? '&'
                        .self::pick([
                            self::pick(self::LITERALS),
                            self::token($dialect).'=1',
                            'x='.self::token($dialect),
                        ])
                    : '');
        }
        $pieces = [];
        for ($i = 0, $n = mt_rand(1, 5); $i < $n; $i++) {
            $pieces[] = match (mt_rand(0, 6)) {
                0 => self::pick(self::LITERALS),
                1 => self::token($dialect).'='.self::pick(['1', self::token($dialect)]),
                2 => self::pick(['utm_campaign', 'utm_content', 'c'])
                    .'='
                    .self::token($dialect)
                    .self::pick(['', '-', 'x'])
                    .self::pick(['', self::token($dialect)]),
                default => self::pick(['utm_source', 'utm_medium', 'utm_campaign', 'utm_term', 'utm_content'])
                    .'='
                    .self::pick(['nq', 'cpc', 'summer_sale', self::token($dialect), self::token($dialect)]),
            };
        }

        return implode(self::pick(['&', '&', '&', '&', '?', '#', '%26']), $pieces);
    }

    private static function token(Dialect $dialect): string
    {
        if ($dialect->syntax === null) {
            return 'plain';
        }
        $prefix = $dialect->customParameters?->prefix;
        if ($prefix !== null && mt_rand(0, 4) === 0) {
            return $dialect->written($prefix.self::pick(['n', 'm', 'none']));
        }
        $token = self::pick($dialect->tokens);

        return $dialect->written(
            $token->kind === TokenKind::When ? $token->name.':'.self::pick(self::LITERALS) : $token->name,
        );
    }

    private static function right(Dialect $dialect, Plan $plan): string
    {
        $pairs = [];
        foreach ($plan->parameters as $parameter) {
            $text = '';
            foreach ($parameter->choices($dialect)[0] ?? [] as $part) {
                $token = $part->field === null ? null : $dialect->tokenFor($part->field, null);
                $text .=
                    $part->field === null
                        ? rawurlencode((string) $part->text)
                        : ($token === null
                            ? 'summer_sale'
                            : $dialect->written($token->name));
            }
            $pairs[] = "{$parameter->key}={$text}";
        }

        return implode('&', $pairs);
    }

    public static function plan(): Plan
    {
        $fields = [
            'campaign.name',
            'campaign.id',
            'ad.id',
            'ad.name',
            'group.name',
            'keyword.text',
            'device',
            'ad.width',
            'publisher.name',
            'keyword.match',
            'account.id',
        ];
        $part = static fn (): array => mt_rand(0, 1) === 1
            ? ['text' => self::pick(['nq', 'cpc', 'summer_sale', 'x-', '71'])]
            : ['field' => self::pick($fields)];
        $parts = static fn (): array => mt_rand(0, 2) === 0 ? [$part(), ['text' => '-'], $part()] : [$part()];
        $parameters = [];
        foreach (['utm_source', 'utm_medium', 'utm_campaign', 'utm_content', 'c'] as $key) {
            if (mt_rand(0, 2) > 0) {
                $parameters[] = [
                    'key' => $key,
                    'parts' => $parts(),
                    'shape' => self::pick(['as-is', 'as-is', 'slug']),
                    'required' => mt_rand(0, 1) === 1,
                    ...mt_rand(0, 2) === 0 ? ['fallback' => [$parts()]] : [],
                ];
            }
        }

        return PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => self::pick(['required', 'optional']),
                'parameters' => $parameters,
            ]),
        );
    }

    /** The same plan with up to three variants, each for some of what the account has: a type, a campaign, a group. */
    public static function varied(Plan $plan, Account $account): Plan
    {
        $variants = [];
        foreach (range(1, mt_rand(1, 3)) as $n) {
            $wide = array_values(
                array_filter(
                    iterator_to_array($account->wideNodes()),
                    static fn (Node $node): bool => mt_rand(0, 1) === 1 && $node->id !== '',
                ),
            );
            $where = [];
            foreach (array_slice($wide, 0, mt_rand(0, 2)) as $node) {
                $role = $account->dialect->level($node->level)->role ?? null;
                if (in_array($role, [Role::Account, Role::Campaign, Role::Group], true)) {
                    $where[$role->value.self::pick(['.id', '.name'])] = [$node->id, $node->name];
                }
            }
            $types = array_values(array_filter(array_map(static fn (Node $node): ?string => $node->type, $wide)));
            $types = $types === [] || mt_rand(0, 1) === 1 ? null : [$types[0]];
            if ($where === [] && $types === null) {
                continue;
            }
            $variants[] = new Variant("v{$n}", "V{$n}", null, $types, $where, self::plan()->parameters);
        }

        return new Plan($plan->id, $plan->title, $plan->clickIdRequired, $plan->parameters, [], $variants);
    }
}
