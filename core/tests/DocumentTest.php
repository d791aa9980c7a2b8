<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\AccountReader;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

final class DocumentTest extends TestCase
{
    /**
     * @return iterable<string, array{list<string|int>, mixed, string}> a place in Northquay's dialect, what is put
     *     there, and what is said
     */
    public static function brokenDialects(): iterable
    {
        yield 'another format' => [['format'], 'x/1', 'format: "vestigon.dialect/1" is wanted'];
        yield 'a role that is none' => [
            ['levels', 1, 'role'],
            'branch',
            'levels[1].role: "branch" is not one of account, folder, campaign, group, ad',
        ];
        yield 'no ad level' => [
            ['levels'],
            [],
            'levels: the first level must have the role account, the last one the role ad',
        ];
        yield 'an empty mark' => [
            ['syntax', 'open'],
            '',
            'syntax.open: a mark of at least one character is wanted',
        ];
        yield 'a token twice' => [['tokens', 4, 'name'], 'LANDING', 'tokens[4].name: "LANDING" is there twice'];
        yield 'a slot on no level' => [
            ['slots', 0, 'levels', 2],
            'grp',
            'slots[0].levels[2]: "grp" is not one of the levels account, campaign, group, ad',
        ];
        yield 'too much encoding' => [
            ['tokens', 3, 'encode'],
            12,
            'tokens[3].encode: a number from 0 to 9 is wanted',
        ];
        yield 'text where a flag belongs' => [
            ['syntax', 'caseSensitive'],
            'no',
            'syntax.caseSensitive: true or false is wanted, text given',
        ];
        yield 'a word of no choice' => [['assembly', 'space'], '_', 'assembly.space: "+" or "%20" is wanted'];
    }

    /** @param list<string|int> $place */
    #[DataProvider('brokenDialects')]
    public function test_a_broken_dialect_is_refused_with_the_place(
        array $place,
        mixed $value,
        string $message,
    ): void {
        $document = json_decode(
            (string) file_get_contents(dirname(__DIR__).'/dialects/northquay-search.json'),
            true,
        );
        $at = &$document;
        foreach ($place as $key) {
            $at = &$at[$key];
        }
        $at = $value;
        $this->expectExceptionObject(new UnusableInput($message));
        DialectReader::read(new Cursor($document));
    }

    /** @return iterable<string, array{list<array<string, mixed>>, string}> */
    public static function brokenAccounts(): iterable
    {
        $account = ['id' => 'A', 'level' => 'account', 'name' => 'x'];
        yield 'twice the same id' => [[$account, $account], 'nodes[1].id: "A" is there twice'];
        yield 'a parent that is not there' => [
            [$account, ['id' => 1, 'parent' => 'B', 'level' => 'campaign', 'name' => 'x']],
            'nodes[1].parent: there is no node "B"',
        ];
        yield 'no parent' => [
            [$account, ['id' => 1, 'level' => 'campaign', 'name' => 'x']],
            'nodes[1].parent: a parent on a wider level is wanted',
        ];
        yield 'a circle' => [
            [
                ['id' => 1, 'parent' => 2, 'level' => 'group', 'name' => 'x'],
                ['id' => 2, 'parent' => 1, 'level' => 'group', 'name' => 'x'],
            ],
            'nodes[0].parent: a parent on a wider level is wanted',
        ];
        yield 'a level that is none' => [
            [['id' => 1, 'level' => 'line', 'name' => 'x']],
            'nodes[0].level: "line" is no level of Northquay Search',
        ];
        yield 'a slot that is none' => [
            [$account + ['slots' => ['prefix' => 'x']]],
            'nodes[0].slots: "prefix" is no slot; there are template, suffix and landing',
        ];
    }

    /** @param list<array<string, mixed>> $nodes */
    #[DataProvider('brokenAccounts')]
    public function test_a_broken_account_is_refused_with_the_place(array $nodes, string $message): void
    {
        $this->expectExceptionObject(new UnusableInput($message));
        AccountReader::read(new Cursor(['nodes' => $nodes]), Make::northquay());
    }

    public function test_what_is_gone_is_left_out_with_all_below_it(): void
    {
        $node = static fn (string $id, ?string $parent, string $level, array $more = []): array => [
            'id' => $id,
            'parent' => $parent,
            'level' => $level,
            'name' => $id,
            ...$more,
        ];
        $account = AccountReader::read(
            new Cursor([
                'nodes' => [
                    $node('A', null, 'account'),
                    $node('1', 'A', 'campaign', ['standing' => 'gone']),
                    $node('2', 'A', 'campaign', ['standing' => 'paused']),
                    $node('11', '1', 'group'),
                    $node('111', '11', 'ad'),
                    $node('21', '2', 'ad'),
                ],
            ]),
            Make::northquay(),
        );

        self::assertSame(['A', 2, 21], array_keys($account->nodes), 'what is paused is there');
        self::assertSame(['A', 2, 21], array_keys($account->parents));
    }

    public function test_an_account_is_read(): void
    {
        $account = AccountReader::read(
            new Cursor([
                'settings' => ['clickId' => false],
                'nodes' => [
                    ['id' => 'A', 'level' => 'account', 'name' => 'x'],
                    [
                        'id' => 7,
                        'parent' => 'A',
                        'level' => 'ad',
                        'name' => 'y',
                        'slots' => ['landing' => 'https://v.example'],
                    ],
                ],
            ]),
            Make::northquay(),
        );
        self::assertSame(
            ['https://v.example'],
            array_map(
                static fn ($p): ?string => $p->last()->slots['landing'],
                iterator_to_array($account->ads(), false),
            ),
        );
    }
}
