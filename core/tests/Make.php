<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/** Plans and accounts for tests. */
final class Make
{
    public static function northquay(): Dialect
    {
        return Shipped::dialect('northquay-search') ?? throw new \LogicException('the dialect is shipped');
    }

    public static function plan(): Plan
    {
        return PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p1',
                'title' => 'Agreement',
                'clickId' => 'required',
                'parameters' => [
                    ['key' => 'utm_source', 'parts' => [['text' => 'northquay']], 'required' => true],
                    ['key' => 'utm_medium', 'parts' => [['text' => 'cpc']], 'required' => true],
                    [
                        'key' => 'utm_campaign',
                        'parts' => [['field' => 'campaign.name']],
                        'shape' => 'slug',
                        'required' => true,
                    ],
                    [
                        'key' => 'utm_term',
                        'parts' => [['field' => 'keyword.text']],
                        'fallback' => [[['field' => 'product.id']]],
                    ],
                    ['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]],
                ],
            ]),
        );
    }

    /**
     * @param list<array{0: string, 1: string, 2: string, 3: string, 4?: string}> $rows id, parent, level, name, and the
     *     campaign's type or the ad's landing URL
     * @param array<string, array<string, string>> $slots by node id
     * @param list<Hop> $hops
     */
    public static function account(array $rows, array $slots = [], array $hops = []): Account
    {
        $nodes = ['acc' => new Node('account', 'acc', 'Velmar Ferries', null, $slots['acc'] ?? [])];
        $parents = ['acc' => null];
        foreach ($rows as $row) {
            [$id, $parent, $level, $name] = $row;
            $own = $slots[$id] ?? [];
            $nodes[$id] = new Node(
                $level,
                $id,
                $name,
                $level === 'campaign' ? $row[4] ?? null : null,
                $level === 'ad' && isset($row[4]) ? $own + ['landing' => $row[4]] : $own,
            );
            $parents[$id] = $parent;
        }

        return new Account(self::northquay(), new Settings(), $hops, $nodes, $parents);
    }

    /** A small account with texts as people leave them. Uses mt_rand: seed it. */
    public static function randomAccount(): Account
    {
        $pick = static fn (array $from): mixed => $from[mt_rand(0, count($from) - 1)];
        $templates = [
            null,
            null,
            null,
            '{landing}',
            '{landing}?utm_source=nq',
            '{landing}?src=1&utm_medium=CPC&x={device}',
            '{landing}&utm_source=a',
            ' ',
            'https://go.hopgate.example/r?to={landing.enc}',
            'https://go.hopgate.example/r?to={landing.enc}&utm_source=b&k=1',
            'https://go.hopgate.example/r?to={landing}%3Futm_source%3Dq',
        ];
        $suffixes = [
            null,
            null,
            null,
            'utm_source=x',
            '?aff=3',
            'aff=3&utm_term={term}&',
            'utm_campaign={my.name}',
            'ref={my.campaign_name}',
        ];
        $landings = [
            'https://velmar.example/book',
            'https://velmar.example/book?lang=en',
            'https://velmar.example/?utm_source=z',
            'https://velmar.example/b?a=1#top',
            'https://velmar.example/b#x',
        ];
        $rows = [];
        $slots = ['acc' => array_filter(['template' => $pick($templates), 'suffix' => $pick($suffixes)])];
        for ($c = 1, $n = mt_rand(1, 3); $c <= $n; $c++) {
            $rows[] = [
                "c{$c}",
                'acc',
                'campaign',
                $pick(['Summer Sale', 'brand', 'Äußere Inseln', 'a & b']),
                $pick(['text', 'text', 'listing', 'video']),
            ];
            $slots["c{$c}"] = array_filter([
                'template' => mt_rand(0, 2) === 0 ? $pick($templates) : null,
                'suffix' => mt_rand(0, 2) === 0 ? $pick($suffixes) : null,
            ]);
            $rows[] = ["g{$c}", "c{$c}", 'group', 'Group'];
            $slots["g{$c}"] = array_filter(['suffix' => mt_rand(0, 3) === 0 ? $pick($suffixes) : null]);
            for ($a = 1, $m = mt_rand(1, 3); $a <= $m; $a++) {
                $rows[] = ["c{$c}a{$a}", "g{$c}", 'ad', 'Ad', $pick($landings)];
                $slots["c{$c}a{$a}"] = array_filter([
                    'template' => mt_rand(0, 5) === 0 ? $pick($templates) : null,
                ]);
            }
        }

        return self::account($rows, $slots, [new Hop('go.hopgate.example', 'to', mt_rand(0, 1) === 1)]);
    }
}
