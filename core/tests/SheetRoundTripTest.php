<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Command\SheetCommand;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Sheet\Cells;
use Vestigon\Core\Sheet\Outgoing;
use Vestigon\Core\Sheet\OutTable;
use Vestigon\Core\Sheet\SheetMapReader;

/**
 * What goes out comes in again: an account as sheets is the account, and a change that goes out in the shape of those
 * sheets makes exactly its writes when it is read back. Random accounts of every platform, and of ones that nobody has
 * seen, by numbers and by names.
 */
final class SheetRoundTripTest extends TestCase
{
    private const ACCOUNTS = 30;

    /** texts that a spreadsheet takes for something else, or that are hard to keep in a cell */
    private const TEXTS = [
        '=SUM(A1)',
        '@x',
        '-1',
        '+44 1',
        "'=a",
        "''@b",
        "'s-Gravenhaven",
        '007',
        "'7",
        '1.20345E+11',
        "a\nb",
        'say "so", twice; or | not',
        'utm_source=x&utm_medium=y',
        'Total',
        'https://v.example/?q=日本',
    ];

    private const HEADINGS = [
        'template' => 'Tracking',
        'suffix' => 'Query',
        'landing' => 'Page',
        'custom' => 'Extras',
        'type' => 'Kind',
    ];

    /** @return iterable<string, array{Dialect|null, bool}> null: another platform that nobody has seen each time */
    public static function platforms(): iterable
    {
        foreach ([...Shipped::all(), 'unseen' => null] as $id => $dialect) {
            yield "{$id} by numbers" => [$dialect, false];
            yield "{$id} by names" => [$dialect, true];
        }
    }

    #[DataProvider('platforms')]
    public function test_what_goes_out_comes_in_again(?Dialect $platform, bool $byName): void
    {
        mt_srand(20_261_126);
        $written = 0;
        for ($i = 0; $i < self::ACCOUNTS; $i++) {
            $dialect = $platform ?? RandomDialects::dialect();
            $plan = RandomAccounts::plan($dialect);
            $account = self::tidied(RandomAccounts::account($dialect, $plan), $byName);
            $map = self::map($dialect, $byName);
            $tables = self::tables($account);
            $request = [
                'map' => $map,
                'dialect' => $dialect->id,
                'account' => ['id' => 'A-1', 'name' => $account->nodes[array_key_first($account->nodes)]->name],
            ];
            $first = self::read($dialect, [...$request, 'tables' => $tables]);
            self::assertSame([], $first['problems']);
            $known = self::known($first['account'], $account);
            self::assertSame(self::texts($account), self::texts($known), 'as sheets it is the account');

            $writes = self::writes($known);
            $after = Write::applied($known, $writes);
            $out = self::out($dialect, $map, $tables, $known, $after, $writes);
            $second = self::read($dialect, [...$request, 'known' => $first['account'], 'tables' => $out]);
            $wrong = array_filter($second['problems'], static fn (array $p): bool => $p['code'] !== 'missing-column');
            self::assertSame([], $wrong);
            $read = self::known($second['account'], $account);
            self::assertSame(self::texts($after), self::texts($read), 'exactly the writes');
            $changed = array_unique(array_map(static fn (Write $w): string => $w->node, $writes));
            self::assertSame(
                count(array_filter($changed, static fn (string $k): bool => $k !== 'A-1')),
                $second['counts']['changed'],
            );
            $written += count($writes);
        }
        self::assertGreaterThan(self::ACCOUNTS, $written, 'enough was written to say something');
    }

    /** @return list<Write> on about every other element */
    private static function writes(Account $account): array
    {
        $writes = [];
        foreach ($account->nodes as $key => $node) {
            $kind = SlotKind::cases()[mt_rand(0, 2)];
            $text = mt_rand(0, 3) === 0 ? null : self::TEXTS[mt_rand(0, count(self::TEXTS) - 1)];
            $write = match (mt_rand(0, 3)) {
                0 => Write::slot((string) $key, $kind, $node->slots[$kind->value] ?? null, $text),
                1 => Write::custom((string) $key, 'season', $node->custom['season'] ?? null, $text),
                default => null,
            };
            if ($write !== null && $write->before !== $write->after) {
                $writes[] = $write;
            }
        }

        return $writes;
    }

    /**
     * The sheets of a change.
     *
     * @param array<string, mixed> $map
     * @param list<array{title: string, rows: list<list<string>>}> $tables
     * @param list<Write> $writes
     * @return list<array{title: string, rows: list<list<string>>}>
     */
    private static function out(
        Dialect $dialect,
        array $map,
        array $tables,
        Account $known,
        Account $after,
        array $writes,
    ): array {
        $sheet = SheetMapReader::read(new Cursor($map), $dialect);
        $outgoing = new Outgoing(
            array_map(
                static fn (array $t): OutTable => new OutTable(
                    $t['title'],
                    $t['rows'][0],
                    $sheet,
                    $sheet->tableFor($t['title'], $t['rows']) ?? self::fail('a table without a map'),
                    $dialect,
                    'A-1',
                ),
                $tables,
            ),
        );
        foreach ($writes as $write) {
            self::assertTrue($outgoing->place($write, $known->nodes[$write->node]->level));
        }
        $out = [];
        foreach ($outgoing->headings() as $at => $headings) {
            $out[$at] = ['title' => $tables[$at]['title'], 'rows' => [$headings]];
        }
        foreach (array_unique(array_map(static fn (Write $w): string => $w->node, $writes)) as $node) {
            foreach ($outgoing->rows($node, $after->pathTo($node)) as $at => $row) {
                self::assertNotNull($row, json_encode($after->nodes[$node]));
                $out[$at]['rows'][] = array_map(Cells::harmless(...), $row);
            }
        }

        return array_values($out);
    }

    /** @return array<string, mixed> a map with a table for each level */
    private static function map(Dialect $dialect, bool $byName): array
    {
        $tables = [];
        $above = [];
        foreach ($dialect->levels as $level) {
            $above[] = [
                'heading' => "{$level->id} key",
                'means' => $level->id.($byName && $level->depth > 0 ? '.name' : '.id'),
            ];
            $tables[] = [
                'title' => $level->id,
                'level' => $level->id,
                'columns' => [
                    ...$above,
                    ...($byName || $level->depth === 0 ? [] : [['heading' => 'Name', 'means' => 'name']]),
                    ...($level->role === Role::Campaign
                        ? [['heading' => self::HEADINGS['type'], 'means' => 'type']]
                        : []),
                    ...array_map(
                        static fn (SlotKind $k): array => [
                            'heading' => self::HEADINGS[$k->value],
                            'means' => "slot.{$k->value}",
                        ],
                        SlotKind::cases(),
                    ),
                    [
                        'heading' => self::HEADINGS['custom'],
                        'means' => 'custom',
                        'form' => ['pair' => "\x1E", 'is' => "\x1D", 'open' => '{', 'close' => '}'],
                    ],
                ],
            ];
        }

        return ['format' => 'vestigon.sheet-map/1', 'dialect' => $dialect->id, 'title' => 'x', 'tables' => $tables];
    }

    /** @return list<array{title: string, rows: list<list<string>>}> the account, a table for each level */
    private static function tables(Account $account): array
    {
        $tables = [];
        foreach (self::map($account->dialect, str_starts_with(self::some($account)->id, '='))['tables'] as $table) {
            $rows = [array_column($table['columns'], 'heading')];
            foreach ($account->nodes as $key => $node) {
                if ($node->level === $table['level']) {
                    $path = $account->pathTo((string) $key);
                    $rows[] = array_map(
                        static fn (array $column): string => Cells::harmless(self::cell($column, $path->nodes, $node)),
                        $table['columns'],
                    );
                }
            }
            $tables[] = ['title' => $table['title'], 'rows' => $rows];
        }

        return $tables;
    }

    /**
     * @param array<string, mixed> $column
     * @param list<Node> $path
     */
    private static function cell(array $column, array $path, Node $node): string
    {
        [$of, $what] = explode('.', $column['means']) + [1 => ''];
        foreach ($path as $above) {
            if ($above->level === $of && ($what === 'id' || $what === 'name')) {
                return $what === 'id' ? $above->id : $above->name;
            }
        }

        return match ($of) {
            'name' => $node->name,
            'type' => $node->type ?? '',
            'slot' => $node->slots[$what] ?? '',
            'custom' => implode(
                "\x1E",
                array_map(
                    static fn (string $n, string $v): string => "{{$n}}\x1D{$v}",
                    array_map(strval(...), array_keys($node->custom)),
                    $node->custom,
                ),
            ),
        };
    }

    private static function some(Account $account): Node
    {
        return $account->nodes[array_key_last($account->nodes)];
    }

    /** As a sheet can hold it: texts without what is trimmed, each element told by its number or its name. */
    private static function tidied(Account $account, bool $byName): Account
    {
        $nodes = $parents = $ids = [];
        $text = static fn (string $t): string => trim(mb_scrub($t));
        $name = static fn (string $k): string => trim("{$text($account->nodes[$k]->name)} {$k}");
        foreach ($account->nodes as $key => $node) {
            $key = (string) $key;
            $parent = $account->parents[$key];
            $way = array_map(
                static fn (string $k): string => $k === $account->keysTo($k)[0]
                    ? "{$account->nodes[$k]->level}:A-1"
                    : "{$account->nodes[$k]->level}={$name($k)}",
                $account->keysTo($key),
            );
            $ids[$key] = match (true) {
                $parent === null => 'A-1',
                $byName => '='.substr(hash('sha256', implode("\x1F", $way)), 0, 20),
                default => $key,
            };
            $filled = static fn (array $texts): array => array_filter(
                array_map($text, $texts),
                static fn (string $t): bool => $t !== '',
            );
            $nodes[$ids[$key]] = new Node(
                $node->level,
                $ids[$key],
                $name($key),
                $node->type,
                $filled($node->slots),
                $filled($node->custom),
            );
            $parents[$ids[$key]] = $parent === null ? null : $ids[$parent];
        }

        return new Account($account->dialect, $account->settings, $account->hops, $nodes, $parents);
    }

    /**
     * @param array<string, mixed> $request
     * @return array<string, mixed>
     */
    private static function read(Dialect $dialect, array $request): array
    {
        return (new SheetCommand([$dialect->id => $dialect]))->answer(new Cursor($request))->document;
    }

    /** @param array<string, mixed> $document */
    private static function known(array $document, Account $like): Account
    {
        $nodes = $parents = [];
        foreach ($document['nodes'] as $n) {
            $nodes[$n['id']] = new Node(
                $n['level'],
                $n['id'],
                $n['name'],
                $n['type'] ?? null,
                $n['slots'] ?? [],
                $n['custom'] ?? [],
            );
            $parents[$n['id']] = $n['parent'];
        }

        return new Account($like->dialect, $like->settings, $like->hops, $nodes, $parents);
    }

    /** @return array<string, mixed> all that an account says, by element */
    private static function texts(Account $account): array
    {
        $texts = [];
        foreach ($account->nodes as $key => $node) {
            [$slots, $custom] = [$node->slots, $node->custom];
            ksort($slots);
            ksort($custom);
            $texts[$key] = [$account->parents[$key], $node->name, $node->type, $slots, $custom];
        }
        ksort($texts);

        return $texts;
    }
}
