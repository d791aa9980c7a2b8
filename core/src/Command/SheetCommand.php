<?php

declare(strict_types=1);

namespace Vestigon\Core\Command;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Sheet\Element;
use Vestigon\Core\Sheet\Gathering;
use Vestigon\Core\Sheet\HeadingRow;
use Vestigon\Core\Sheet\Known;
use Vestigon\Core\Sheet\Layout;
use Vestigon\Core\Sheet\Merged;
use Vestigon\Core\Sheet\Problem;
use Vestigon\Core\Sheet\RowReader;
use Vestigon\Core\Sheet\RowSort;
use Vestigon\Core\Sheet\SheetMap;
use Vestigon\Core\Sheet\SheetMapReader;
use Vestigon\Core\Sheet\WayUp;

/**
 * ./vestigon sheet: {map, dialect, account, known?, tables, whole?} in; the account that they make, what is wrong with
 * them, and what is new out.
 */
final class SheetCommand implements Command
{
    public const FORMAT = 'vestigon.sheet/1';

    /** @param array<string, Dialect> $shipped by id */
    public function __construct(private readonly array $shipped) {}

    /** @throws UnusableInput */
    public function answer(Cursor $request): Answer
    {
        $dialect = DialectReader::given(
            $request->at('dialect'),
            fn (string $id): ?Dialect => $this->shipped[$id] ?? null,
        );
        $map = SheetMapReader::read($request->at('map'), $dialect);
        $account = $request->at('account')->at('id')->text();
        $known = $request->has('known') ? Known::read($request->at('known'), $dialect) : [];
        $gathering = new Gathering(
            $dialect,
            [],
            array_map(static fn (Element $e): ?array => $e->parent, $known),
        );
        $problems = [];
        $counts = ['rows' => 0, 'totals' => 0];
        foreach ($request->at('tables')->list() as $at => $table) {
            [$found, $rows, $totals] = self::table($table, $at, $map, $dialect, $account, $gathering);
            array_push($problems, ...$found);
            $counts['rows'] += $rows;
            $counts['totals'] += $totals;
        }
        [$elements, $lost] = WayUp::of($gathering->elements(), $known, $dialect);
        $merged = new Merged(
            $elements,
            $known,
            $request->has('whole')
                ? array_map(static fn (Cursor $c): bool => $c->bool(), $request->at('whole')->map())
                : [],
            $dialect,
        );
        array_push($problems, ...$gathering->problems(), ...$lost);
        usort($problems, static fn (Problem $a, Problem $b): int => [$a->table, $a->row] <=> [$b->table, $b->row]);

        return new Answer(
            [
                'format' => self::FORMAT,
                'account' => [
                    'format' => 'vestigon.account/1',
                    'dialect' => $dialect->id,
                    ...self::beside($request, $merged->settings()),
                    'nodes' => $merged->nodes($account, $request->at('account')->at('name')->string()),
                ],
                'problems' => array_map(static fn (Problem $p): array => $p->toArray(), $problems),
                'counts' => [...$counts, ...$merged->counts],
            ],
            array_filter($problems, static fn (Problem $p): bool => $p->severity === Severity::Error) !== [],
        );
    }

    /**
     * What an account document has beside its nodes.
     *
     * @param array<string, string> $settings as the rows say
     * @return array<string, mixed>
     */
    private static function beside(Cursor $request, array $settings): array
    {
        $known = $request->has('known')
            ? array_intersect_key($request->at('known')->object(), ['settings' => true, 'hops' => true])
            : [];
        foreach ($settings as $name => $text) {
            $known['settings'] = [
                ...(array) ($known['settings'] ?? []),
                $name => Setting::from($name)->inDocuments($text),
            ];
        }

        return $known;
    }

    /** @return array{list<Problem>, int, int} what is wrong with it, its rows, and those of totals */
    private static function table(
        Cursor $table,
        int $at,
        SheetMap $map,
        Dialect $dialect,
        string $account,
        Gathering $gathering,
    ): array {
        $rows = array_map(self::row(...), $table->at('rows')->list());
        $first = array_slice($rows, 0, HeadingRow::WITHIN);
        $layout = Layout::in($map, $table->at('title')->string(), $first);
        if ($layout === null) {
            return [[Problem::noHeadings($at)], 0, 0];
        }
        $reader = new RowReader($dialect, $map, $layout, $at, $account);
        $problems = $layout->problems($at);
        $read = $totals = 0;
        foreach (array_slice($rows, $layout->at + 1) as $i => $cells) {
            $row = $reader->read($cells, $layout->at + 2 + $i);
            $totals += (int) ($row->sort === RowSort::Total);
            $read += (int) ($row->sort === RowSort::Element);
            array_push($problems, ...$row->problems);
            if ($row->said !== null) {
                $gathering->row($row->said);
            }
        }

        return [$problems, $read, $totals];
    }

    /** @return list<string|int|float|null> */
    private static function row(Cursor $row): array
    {
        $cells = [];
        foreach ($row->list() as $cell) {
            $value = $cell->value;
            $cells[] =
                $value === null || is_string($value) || is_int($value) || is_float($value)
                    ? $value
                    : $cell->fail('a cell is text, a number or null');
        }

        return $cells;
    }
}
