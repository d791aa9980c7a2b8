<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** Reads a sheet map (`vestigon.sheet-map/1`). */
final class SheetMapReader
{
    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function read(Cursor $c, Dialect $dialect): SheetMap
    {
        if ($c->at('format')->string() !== SheetMap::FORMAT) {
            $c->at('format')->fail('"'.SheetMap::FORMAT.'" is wanted');
        }
        if ($c->at('dialect')->string() !== $dialect->id) {
            $c->at('dialect')->fail("this map is for {$c->at('dialect')->string()}, not for {$dialect->id}");
        }
        $decimal = $c->has('decimal') ? $c->at('decimal')->string() : '.';
        if (! in_array($decimal, ['.', ','], true)) {
            $c->at('decimal')->fail('"." or "," is wanted');
        }
        $tables = array_map(static fn (Cursor $t): TableMap => self::table($t, $dialect), $c->at('tables')->list());
        if ($tables === []) {
            $c->at('tables')->fail('at least one table is wanted');
        }

        return new SheetMap(
            $dialect->id,
            $c->has('title') ? $c->at('title')->string() : '',
            $tables,
            $decimal,
            $c->has('blank') ? $c->at('blank')->strings() : [],
            $c->has('totals') ? $c->at('totals')->strings() : [],
        );
    }

    private static function table(Cursor $c, Dialect $dialect): TableMap
    {
        $columns = array_map(static fn (Cursor $x): Column => self::column($x, $dialect), $c->at('columns')->list());
        if ($columns === []) {
            $c->at('columns')->fail('at least one column is wanted');
        }

        return new TableMap(
            $c->has('title') ? $c->at('title')->string() : '',
            $c->has('level') ? self::level($c->at('level'), $dialect) : null,
            $c->has('rowKind') ? self::rowKind($c->at('rowKind'), $dialect) : null,
            $columns,
        );
    }

    private static function rowKind(Cursor $c, Dialect $dialect): RowKind
    {
        return new RowKind(
            $c->at('column')->someText(),
            array_map(static fn (Cursor $l): string => self::level($l, $dialect), $c->at('values')->map()),
        );
    }

    private static function column(Cursor $c, Dialect $dialect): Column
    {
        return new Column(
            $c->at('heading')->someText(),
            Meaning::read($c->at('means'), $dialect),
            $c->has('values') ? $c->at('values')->stringMap() : null,
            $c->has('form') ? CustomForm::read($c->at('form')) : new CustomForm(),
        );
    }

    private static function level(Cursor $c, Dialect $dialect): string
    {
        return $dialect->level($c->string())->id
            ?? $c->fail("\"{$c->string()}\" is no level of {$dialect->title}");
    }
}
