<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Compile\Write;

/**
 * Sends a change out in the shape that an account came in: rows for the elements that are written to, in the tables
 * that have a column for what is written.
 *
 * First all writes are placed, then the rows are made: which columns go out depends on all of them.
 */
final class Outgoing
{
    /** @var array<int, array<int, true>> table → places of the columns that go out */
    private array $places = [];

    /** @var array<string, array<int, true>> element → tables that have a row of it */
    private array $tables = [];

    /**
     * @param list<OutTable> $out
     * @param bool $all all columns, not only those that are needed
     */
    public function __construct(private readonly array $out, private readonly bool $all = false) {}

    /**
     * @param string $level of the element that is written to
     * @return bool is there a column for it?
     */
    public function place(Write $write, string $level): bool
    {
        foreach ($this->out as $at => $table) {
            $column = $table->columnFor($write, $level);
            if ($column !== null) {
                $this->tables[$write->node][$at] = true;
                foreach ([$column, ...$table->tellingFor($level)] as $place) {
                    $this->places[$at][$place] = true;
                }

                return true;
            }
        }

        return false;
    }

    /** @return array<int, list<string>> table → the headings that it goes out with, in their order */
    public function headings(): array
    {
        $headings = [];
        foreach (array_keys($this->places) as $at) {
            $headings[$at] = $this->out[$at]->headingsOf($this->columns($at));
        }
        ksort($headings);

        return $headings;
    }

    /**
     * @param string $node the element's key, as in the writes
     * @param Path $path to it, as it will be
     * @param array<string, string> $settings what the account is switched to, by name
     * @return array<int, list<string>|null> table → its row there; null: it would not be read back as this element
     */
    public function rows(string $node, Path $path, array $settings = []): array
    {
        $rows = [];
        foreach (array_keys($this->tables[$node] ?? []) as $at) {
            $rows[$at] = $this->out[$at]->row($path, $this->columns($at), $settings);
        }

        return $rows;
    }

    /** @return list<int> places, in their order */
    private function columns(int $at): array
    {
        $places = $this->all
            ? array_keys($this->out[$at]->headings)
            : array_map(intval(...), array_keys($this->places[$at]));
        sort($places);

        return $places;
    }
}
