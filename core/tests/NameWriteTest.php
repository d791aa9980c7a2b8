<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Settings;

/** A name as a write: what is sent of it afterwards, and what puts it back. */
final class NameWriteTest extends TestCase
{
    /** Of a platform that sends names as they are, or as they were when something was published. */
    private static function account(string $platform, string $level, string $suffix): Account
    {
        $dialect = Shipped::dialect($platform) ?? throw new \LogicException('the dialect is shipped');
        $nodes = $parents = [];
        $above = null;
        foreach ($dialect->levels as $i => $of) {
            $key = $of->role === Role::Campaign ? 'c' : "n{$i}";
            $landing = $of->role === Role::Ad ? ['landing' => 'https://velmar.example/x'] : [];
            $nodes[$key] = new Node(
                $of->id,
                $key,
                $key === 'c' ? 'Islands' : "Part {$i}",
                $key === 'c' ? $dialect->campaignTypes[0] : null,
                $landing + ($of->id === $level ? ['suffix' => $suffix] : []),
            );
            [$parents[$key], $above] = [$above, $key];
        }

        return new Account($dialect, new Settings(), [], $nodes, $parents);
    }

    private static function sent(Account $account): ?string
    {
        $ad = (string) array_key_last($account->nodes);

        return Route::once($account->pathTo($ad), ['click.id' => 'K1'], $account->settings)->landed;
    }

    public function test_a_new_name_is_sent_at_once_where_names_are_sent_as_they_are(): void
    {
        $account = self::account('guildloft', 'account', 'c=<<campaign-name>>');
        $after = Write::applied($account, [Write::name('c', 'Islands', 'Isles')]);

        self::assertStringContainsString('c=Islands', (string) self::sent($account));
        self::assertStringContainsString('c=Isles', (string) self::sent($after));
        self::assertNull($after->nodes['c']->publishedName);
    }

    public function test_what_was_published_under_a_name_keeps_sending_it_where_names_freeze(): void
    {
        $account = self::account('hearthring', 'post', 'c=[campaign:name]');
        $once = Write::applied($account, [Write::name('c', 'Islands', 'Isles')]);
        $twice = Write::applied($once, [Write::name('c', 'Isles', 'Skerries')]);

        foreach ([$account, $once, $twice] as $of) {
            self::assertStringContainsString('c=Islands', (string) self::sent($of));
        }
        self::assertSame(['Skerries', 'Islands'], [$twice->nodes['c']->name, $twice->nodes['c']->publishedName]);
    }

    public function test_it_is_put_back_and_told_apart_from_a_text(): void
    {
        $write = Write::name('c', 'Islands', 'Isles');
        $text = Write::slot('c', SlotKind::Suffix, null, 'x=1');

        self::assertSame(
            ['node' => 'c', 'slot' => 'name', 'before' => 'Isles', 'after' => 'Islands'],
            $write->reversed()->toArray(),
        );
        self::assertSame([true, false], [$write->isName(), $text->isName()]);
        self::assertNotSame($write->place(), $text->place());
        self::assertSame(
            [['Isles', 'x=1']],
            array_map(
                static fn (Node $n): array => [$n->name, $n->slots['suffix']],
                array_values(Write::changed(
                    self::account('guildloft', 'account', 'a=1'),
                    [$write, $text],
                )),
            ),
        );
    }
}
