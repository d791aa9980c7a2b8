<?php

declare(strict_types=1);

// The account that the benches of whole accounts are about: 20 campaigns, 50 ads to a group, 2,000 different texts; one
// ad in twenty says something wrong. Its plan.

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Trace\Settings;

final class Sample
{
    public const TEXTS = 2000;

    public static function plan(): Plan
    {
        return PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'required',
                'parameters' => [
                    ['key' => 'utm_source', 'parts' => [['text' => 'northquay']]],
                    ['key' => 'utm_medium', 'parts' => [['text' => 'cpc']]],
                    ['key' => 'utm_campaign', 'parts' => [['field' => 'campaign.name']], 'shape' => 'slug'],
                    ['key' => 'utm_term', 'parts' => [['field' => 'keyword.text']]],
                    ['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]],
                ],
            ]),
        );
    }

    /** What stands above so many ads. */
    public static function wide(int $ads): Account
    {
        $nodes = [
            'A' => new Node('account', 'A', 'Account', null, [
                'suffix' => 'utm_source=northquay&utm_medium=cpc&utm_campaign={my.c}&utm_term={term}'
                    .'&utm_content={ad.id}',
            ]),
        ];
        $parents = ['A' => null];
        for ($c = 0; $c < 20; $c++) {
            $nodes["c{$c}"] = new Node(
                'campaign',
                "c{$c}",
                "Campaign {$c}",
                'text',
                [],
                ['c' => "campaign_{$c}"],
            );
            $parents["c{$c}"] = 'A';
        }
        for ($g = 0; $g < intdiv($ads, 50); $g++) {
            $nodes["g{$g}"] = new Node('group', "g{$g}", "Group {$g}");
            $parents["g{$g}"] = 'c'.$g % 20;
        }

        return new Account(Shipped::dialect('northquay-search') ?? exit(1), new Settings(), [], $nodes, $parents);
    }

    /** @return array{id: string, parent: string, name: string, slots: array<string, string>} the ad of a number */
    public static function row(int $i): array
    {
        $t = $i % self::TEXTS;
        $slots =
            ['landing' => "https://v.example/page/{$t}?lang=en".($t % 20 === 0 ? '&utm_source=old' : '')]
            + ($t % 100 === 1 ? ['suffix' => "utm_source=Northquay&x={$t}"] : []);

        return ['id' => "a{$i}", 'parent' => 'g'.intdiv($i, 50), 'name' => "Ad number {$i}", 'slots' => $slots];
    }

    /** The whole account. */
    public static function account(int $ads): Account
    {
        $wide = self::wide($ads);
        [$nodes, $parents] = [$wide->nodes, $wide->parents];
        for ($i = 0; $i < $ads; $i++) {
            $row = self::row($i);
            $nodes[$row['id']] = new Node('ad', $row['id'], $row['name'], null, $row['slots']);
            $parents[$row['id']] = $row['parent'];
        }

        return new Account($wide->dialect, $wide->settings, $wide->hops, $nodes, $parents);
    }
}
