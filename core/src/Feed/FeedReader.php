<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Plan\Shape;

/** Reads `vestigon.feed/1` documents. */
final class FeedReader
{
    public const FORMAT = 'vestigon.feed/1';

    /** @throws UnusableInput */
    public static function read(Cursor $c): Feed
    {
        if ($c->at('format')->string() !== self::FORMAT) {
            $c->at('format')->fail('"'.self::FORMAT.'" is wanted');
        }
        $reads = $c->at('reads');
        $links = [];
        foreach ($reads->at('links')->list() as $link) {
            $column = $link->at('column')->someText();
            if (isset($links[$column])) {
                $link->at('column')->fail("\"{$column}\" is there twice");
            }
            $links[$column] = $link->at('kind')->enum(LinkKind::class);
        }
        if ($links === []) {
            $reads->at('links')->fail('at least one column of links is wanted');
        }
        $decimal = $reads->has('decimal') ? $reads->at('decimal')->string() : '.';
        if ($decimal !== '.' && $decimal !== ',') {
            $reads->at('decimal')->fail('"." or "," is wanted');
        }
        $form = $reads->at('form')->enum(Form::class);

        return new Feed(
            $c->at('title')->string(),
            $form,
            $reads->has('item') ? $reads->at('item')->someText() : null,
            $reads->at('id')->someText(),
            $links,
            $decimal,
            array_map(
                static fn (Cursor $rule): Rule => self::rule(
                    $rule,
                    array_map(strval(...), array_keys($links)),
                    $decimal,
                ),
                $c->at('rules')->list(),
            ),
        );
    }

    /**
     * @param list<string> $links
     * @param '.'|',' $decimal
     */
    private static function rule(Cursor $c, array $links, string $decimal): Rule
    {
        $only = null;
        foreach ($c->has('links') ? $c->at('links')->list() : [] as $link) {
            if (! in_array($link->string(), $links, true)) {
                $link->fail("\"{$link->string()}\" is no column of links of this feed");
            }
            $only[] = $link->string();
        }

        return new Rule(
            $c->at('title')->string(),
            array_map(
                static fn (Cursor $test): CellTest => self::test($test, $decimal),
                $c->has('when') ? $c->at('when')->list() : [],
            ),
            $c->has('links') ? $only ?? [] : null,
            array_map(self::step(...), $c->at('do')->list()),
            $c->has('last') && $c->at('last')->bool(),
        );
    }

    /** @param '.'|',' $decimal */
    private static function test(Cursor $c, string $decimal): CellTest
    {
        $given = array_values(
            array_filter(Comparison::cases(), static fn (Comparison $how): bool => $c->has($how->value)),
        );
        if (count($given) !== 1) {
            $c->fail('one of '.implode(', ', array_column(Comparison::cases(), 'value')).' is wanted');
        }
        $how = $given[0];
        $with = $c->at($how->value);
        $isExact = $c->has('exact') && $c->at('exact')->bool();
        $words = match ($how) {
            Comparison::In => $with->strings(),
            Comparison::IsEmpty, Comparison::Over, Comparison::Under => [],
            default => [$with->someText()],
        };
        if ($how === Comparison::Matches && @preg_match(CellTest::pattern($words[0], $isExact), '') === false) {
            $with->fail("\"{$words[0]}\" can't be read as an expression: ".preg_last_error_msg());
        }
        $against = match ($how) {
            Comparison::IsEmpty => $with->bool(),
            Comparison::Over, Comparison::Under => $with->number(),
            default => true,
        };

        return new CellTest($c->at('column')->someText(), $how, $words, $against, $isExact, $decimal);
    }

    private static function step(Cursor $c): Step
    {
        $given = array_values(
            array_filter(StepKind::cases(), static fn (StepKind $k): bool => $c->has($k->value)),
        );
        if (count($given) !== 1) {
            $c->fail('one of '.implode(', ', array_column(StepKind::cases(), 'value')).' is wanted');
        }
        $kind = $given[0];
        $writes = $kind === StepKind::Set || $kind === StepKind::Add;

        return new Step(
            $kind,
            $c->at($kind->value)->someText(),
            $writes ? array_map(self::part(...), $c->at('parts')->list()) : [],
            $kind === StepKind::Rename ? $c->at('to')->someText() : '',
        );
    }

    private static function part(Cursor $c): Part
    {
        return $c->has('text')
            ? Part::text($c->at('text')->string())
            : Part::column(
                $c->at('column')->someText(),
                $c->has('shape') ? $c->at('shape')->enum(Shape::class) : Shape::AsIs,
            );
    }
}
