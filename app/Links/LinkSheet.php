<?php

namespace App\Links;

use App\Models\Client;
use App\Models\Link;
use App\Sheets\Files\Form;
use App\Sheets\Files\Table;
use App\Sheets\Files\Writing;
use Vestigon\Core\Document\UnusableInput;

/** Links as a sheet: a row a link, a column for each key that it may carry. */
final readonly class LinkSheet
{
    /** What the columns that are no keys are called, ours first. */
    private const COLUMNS = [
        'title' => ['title', 'name', 'what for'],
        'landing' => ['landing page', 'landing', 'page', 'url', 'destination', 'address', 'link'],
        'code' => ['short', 'code', 'short word', 'word'],
    ];

    private const FIGURES = ['opened', 'programs', 'sessions', 'conversions'];

    private const ROWS = 500;

    public function __construct(private Listed $listed) {}

    /** @return array{path: string, name: string, type: string} */
    public function file(Client $client, string $kind): array
    {
        return Writing::files(
            [
                'links' => [
                    [
                        'title' => 'links',
                        'form' => new Form($kind),
                        'rows' => fn (): iterable => $this->out($client),
                    ],
                ],
            ],
            "links {$client->slug}",
        );
    }

    /** @return iterable<list<mixed>> */
    private function out(Client $client): iterable
    {
        $keys = self::allKeys($client);
        yield ['title', 'landing page', ...$keys, 'short', 'link', 'channel', ...self::FIGURES];
        foreach ($client->links()->with('maker:id,name')->lazyById(self::ROWS)->chunk(self::ROWS) as $some) {
            foreach ($this->listed->of($client, $some->collect()) as $told) {
                $pairs = (array) $told['pairs'];
                yield [
                    $told['title'],
                    $told['landing'],
                    ...array_map(static fn (string $key): string => $pairs[$key] ?? '', $keys),
                    $told['short'] ?? '',
                    $told['url'],
                    $told['channel'],
                    ...array_map(static fn (string $f): int|float => $told[$f], self::FIGURES),
                ];
            }
        }
    }

    /** @return list<string> the usual ones first */
    private static function allKeys(Client $client): array
    {
        $keys = array_fill_keys(Looking::by($client)->keys(), true);
        foreach ($client->links()->select(['id', 'pairs'])->lazyById(self::ROWS) as $link) {
            $keys += array_fill_keys(array_map(strval(...), array_keys($link->pairs)), true);
        }

        return array_map(strval(...), array_keys($keys));
    }

    /**
     * @param list<string> $usual keys that are known by their name without what stands before its first `_` too
     * @return array{rows: list<array<string, mixed>>, more: bool, keys: list<string>}
     *
     * @throws UnusableInput no column is that of landing pages
     */
    public static function rows(Table $table, array $usual, int $most): array
    {
        $columns = null;
        $rows = [];
        foreach ($table->rows() as $cells) {
            $cells = array_map(static fn (mixed $cell): string => trim((string) $cell), $cells);
            if (implode('', $cells) === '') {
                continue;
            }
            if ($columns === null) {
                $columns = array_map(static fn (string $heading): ?string => self::column($heading, $usual), $cells);
                if (! in_array('landing', $columns, true)) {
                    throw new UnusableInput(
                        "{$table->title()}: none of its columns is called “landing page” in the first row. ".
                            'Give the column of the pages that name.',
                    );
                }

                continue;
            }
            if (count($rows) === $most) {
                return ['rows' => $rows, 'more' => true, 'keys' => self::keys($columns)];
            }
            $row = ['title' => '', 'landing' => '', 'pairs' => []];
            foreach ($columns as $i => $column) {
                $cell = $cells[$i] ?? '';
                if (in_array($column, ['title', 'landing'], true)) {
                    $row[$column] = $cell;
                } elseif ($column === 'code' && $cell !== '') {
                    $row['code'] = (string) preg_replace('~^.*/~', '', $cell);
                } elseif ($column !== null && $column !== 'code' && $cell !== '') {
                    $row['pairs'][$column] = $cell;
                }
            }
            $row['pairs'] = (object) $row['pairs'];
            $rows[] = $row;
        }

        return ['rows' => $rows, 'more' => false, 'keys' => self::keys($columns ?? [])];
    }

    /**
     * @param list<string> $usual
     * @return string|null what a column is; null: nothing that a link has
     */
    private static function column(string $heading, array $usual): ?string
    {
        $lower = mb_strtolower($heading);
        foreach (self::COLUMNS as $column => $names) {
            if (in_array($lower, $names, true)) {
                return $column;
            }
        }
        foreach ($usual as $key) {
            if ($lower === mb_strtolower($key) || $lower === preg_replace('/^[^_]*_/', '', mb_strtolower($key))) {
                return $key;
            }
        }

        return $heading === '' || in_array($lower, ['channel', ...self::FIGURES], true) ? null : $heading;
    }

    /**
     * @param list<string|null> $columns
     * @return list<string>
     */
    private static function keys(array $columns): array
    {
        return array_values(array_diff(array_filter($columns), array_keys(self::COLUMNS)));
    }
}
