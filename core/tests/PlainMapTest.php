<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Command\SheetCommand;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Sheet\Outgoing;
use Vestigon\Core\Sheet\OutTable;
use Vestigon\Core\Sheet\PlainMap;
use Vestigon\Core\Sheet\SheetMapReader;

/** A platform whose sheets nobody has shown us has a column for all that can be written, the account's switches too. */
final class PlainMapTest extends TestCase
{
    /** @return iterable<string, array{Dialect, string|array<mixed>}> the platform, and how requests name it */
    public static function platforms(): iterable
    {
        foreach (Shipped::all() as $id => $dialect) {
            yield $id => [$dialect, $id];
        }
        mt_srand(16);
        for ($i = 0; $i < 20; $i++) {
            $document = RandomDialects::document();
            yield "unseen {$i}" => [DialectReader::read(new Cursor($document)), $document];
        }
    }

    /** @param string|array<mixed> $named */
    #[DataProvider('platforms')]
    public function test_all_that_can_be_written_has_a_column_and_comes_back_in(
        Dialect $dialect,
        string|array $named,
    ): void {
        $map = SheetMapReader::read(new Cursor(PlainMap::of($dialect)), $dialect);
        $headings = ['Level', ...array_map(static fn ($c): string => $c->heading, $map->tables[0]->columns)];
        $out = new Outgoing([new OutTable('texts', $headings, $map, $map->tables[0], $dialect, 'A-1')]);
        $writes = self::writes($dialect);
        foreach ($writes as $write) {
            self::assertTrue($out->place($write, $dialect->levels[(int) $write->node]->id), $write->place());
        }
        $rows = $out->headings();
        foreach (self::changed($dialect, $writes) as $at => [$path, $settings]) {
            $rows[] = $out->rows((string) $at, $path, $settings)[0] ?? self::fail("no row of {$path->last()->name}");
        }
        $read = (new SheetCommand(Shipped::all()))->answer(
            new Cursor([
                'map' => PlainMap::of($dialect),
                'dialect' => $named,
                'account' => ['id' => 'A-1', 'name' => 'A'],
                'tables' => [['title' => 'texts', 'rows' => array_values($rows)]],
            ]),
        )->document;

        // where it stands is known from before, and nothing is here
        $wrong = array_filter($read['problems'], static fn ($p): bool => $p['severity'] === 'error');
        self::assertSame([], array_diff(array_column($wrong, 'code'), ['no-parent']));
        foreach (Setting::cases() as $setting) {
            $choices = $setting->choices($dialect);
            self::assertSame(
                $choices === [] ? null : $setting->inDocuments($choices[count($choices) - 1]),
                $read['account']['settings'][$setting->value] ?? null,
            );
        }
    }

    public function test_a_word_that_no_account_switches_to_is_told(): void
    {
        $read = (new SheetCommand(Shipped::all()))->answer(
            new Cursor([
                'map' => PlainMap::of(Shipped::all()['northquay-search']),
                'dialect' => 'northquay-search',
                'account' => ['id' => 'A-1', 'name' => 'A'],
                'tables' => [
                    ['title' => 'texts', 'rows' => [['Level', 'Number', 'Click ID'], ['Account', 'A-1', 'Yes']]],
                ],
            ]),
        )->document;

        $problems = array_values(array_filter($read['problems'], static fn ($p): bool => $p['row'] === 2));
        self::assertSame(['unknown-word'], array_column($problems, 'code'));
        self::assertStringContainsString('there are on, off', $problems[0]['says']);
    }

    /** @return list<Write> one of every kind at every level; the node is the place of its level */
    private static function writes(Dialect $dialect): array
    {
        $writes = [];
        foreach ($dialect->levels as $at => $level) {
            foreach (SlotKind::cases() as $kind) {
                if (in_array($level->id, $dialect->slot($kind)->levels ?? [], true)) {
                    $writes[] = Write::slot((string) $at, $kind, null, "a={$at}");
                }
            }
            $writes[] = Write::name((string) $at, 'before', "after {$at}");
            if (in_array($level->id, $dialect->customParameters->levels ?? [], true)) {
                $writes[] = Write::custom((string) $at, 'season', null, 'winter');
            }
        }
        foreach (Setting::cases() as $setting) {
            $choices = $setting->choices($dialect);
            if ($choices !== []) {
                $writes[] = Write::setting('0', $setting, null, $choices[count($choices) - 1]);
            }
        }

        return $writes;
    }

    /**
     * @param list<Write> $writes
     * @return array<int, array{Path, array<string, string>}> the elements that they change, as they will be
     */
    private static function changed(Dialect $dialect, array $writes): array
    {
        $nodes = $changed = [];
        foreach ($dialect->levels as $at => $level) {
            $nodes[] = new Node($level->id, $at === 0 ? 'A-1' : "7{$at}", $level->label);
            $settings = [];
            $own = array_filter($writes, static fn (Write $w): bool => $w->node === (string) $at);
            foreach ($own as $write) {
                $nodes[$at] = $write->on($nodes[$at], $dialect->namesFreeze);
                if ($write->setting !== null) {
                    $settings[$write->setting->value] = (string) $write->after;
                }
            }
            if ($own !== []) {
                $changed[$at] = [new Path($dialect, $nodes), $settings];
            }
        }

        return $changed;
    }
}
