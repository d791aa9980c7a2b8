<?php

namespace App\Bulk;

use App\Accounts\Misfit;
use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Node;
use App\Models\Text as LiveText;
use Vestigon\Core\Document\UnusableInput;

/**
 * Cells from a spreadsheet. The first line names the columns: `number` (the platform's) or `id`, and any of `template`,
 * `suffix`, `landing` and custom parameters with their prefix. An empty cell leaves the text as it is; `(none)` clears
 * it.
 */
final readonly class Paste
{
    private const NONE = '(none)';

    private const MOST_LINES = 50_000;

    /** @param \Closure(string): void $report */
    public function __construct(private Account $account, private \Closure $report) {}

    /** @return iterable<Text> */
    public function texts(string $cells): iterable
    {
        $lines = array_values(
            array_filter(preg_split('/\r\n|\r|\n/', $cells) ?: [], static fn (string $l): bool => trim($l) !== ''),
        );
        if (count($lines) < 2) {
            throw new UnusableInput(
                'paste at least two lines: the first one names the columns, each other one is an element',
            );
        }
        if (count($lines) > self::MOST_LINES) {
            throw new UnusableInput(
                'more than '.number_format(self::MOST_LINES).' lines; paste them in parts',
            );
        }
        $heads = self::cells($lines[0]);
        [$key, $columns] = $this->columns($heads);
        foreach (array_chunk(array_slice($lines, 1), 500) as $some) {
            yield from $this->lines(array_map(self::cells(...), $some), $key, $columns);
        }
    }

    /**
     * @param list<string> $heads
     * @return array{int, array<int, array{string, string}>} the column of the elements' numbers; column → kind and
     *     custom parameter
     */
    private function columns(array $heads): array
    {
        $dialect = Trees::dialect($this->account);
        $prefix = $dialect->customParameters->prefix ?? null;
        $key = null;
        $columns = [];
        foreach ($heads as $i => $head) {
            $head = trim($head);
            if (in_array(mb_strtolower($head), ['number', 'id'], true)) {
                $key = $i;
            } elseif (in_array(mb_strtolower($head), ['template', 'suffix', 'landing'], true)) {
                $columns[$i] = [mb_strtolower($head), ''];
            } elseif ($prefix !== null && mb_strlen($head) > Misfit::LONGEST_NAME) {
                ($this->report)(
                    'The column “'
                        .mb_strimwidth($head, 0, 60, '…')
                        .'” is left out: its name has more than '
                        .Misfit::LONGEST_NAME
                        .' characters.',
                );
            } elseif ($prefix !== null && str_starts_with($head, $prefix) && $head !== $prefix) {
                $columns[$i] = ['custom', substr($head, strlen($prefix))];
            } elseif (! in_array(mb_strtolower($head), ['name', 'level', ''], true)) {
                ($this->report)(
                    "The column “{$head}” is left out: it is none of number, template, suffix, landing"
                        .($prefix === null ? '.' : ", {$prefix}…"),
                );
            }
        }
        if ($key === null || $columns === []) {
            throw new UnusableInput(
                $key === null
                    ? 'no column is called “number”: it says which element a line is about'
                    : 'no column holds texts: call one template, suffix or landing',
            );
        }

        return [$key, $columns];
    }

    /**
     * @param list<list<string>> $lines
     * @param array<int, array{string, string}> $columns
     * @return iterable<Text>
     */
    private function lines(array $lines, int $key, array $columns): iterable
    {
        $numbers = array_values(
            array_unique(
                array_filter(array_map(static fn (array $l): string => trim($l[$key] ?? ''), $lines), strlen(...)),
            ),
        );
        $nodes = Node::query()
            ->where('account_id', $this->account->id)
            ->whereIn('external_id', $numbers)
            ->get(['id', 'external_id'])
            ->groupBy('external_id');
        $texts = [];
        foreach (
            LiveText::query()
                ->whereIntegerInRaw('node_id', $nodes->flatten()->pluck('id')->all())
                ->whereNull('until')
                ->get() as $t
        ) {
            $texts["{$t->node_id} {$t->kind} {$t->name}"] = $t->text;
        }
        foreach ($lines as $line) {
            $number = trim($line[$key] ?? '');
            $found = $nodes[$number] ?? collect();
            if ($found->count() !== 1) {
                ($this->report)(
                    $number === ''
                        ? 'A line has no number; it is left out.'
                        : ($found->isEmpty()
                            ? "{$number} is not in {$this->account->name}; its line is left out."
                            : "{$number} is the number of {$found->count()} elements; its line is left out."),
                );

                continue;
            }
            foreach ($columns as $i => [$kind, $name]) {
                $cell = trim($line[$i] ?? '');
                $before = $texts["{$found[0]->id} {$kind} {$name}"] ?? null;
                yield new Text(
                    $found[0]->id,
                    $kind,
                    $name,
                    $before,
                    $cell === '' ? $before : ($cell === self::NONE ? null : $cell),
                );
            }
        }
    }

    /** @return list<string> a spreadsheet quotes a cell that holds a quote */
    private static function cells(string $line): array
    {
        return array_map(static fn (?string $c): string => (string) $c, str_getcsv($line, "\t", '"', ''));
    }
}
