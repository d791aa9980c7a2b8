<?php

namespace App\Support;

/** A statement with its values, for whoever has a connection. */
final readonly class Statement
{
    /**
     * @param list<mixed> $values
     * @param bool $tells does it tell of its rows?
     */
    private function __construct(public string $sql, public array $values, public bool $tells) {}

    /**
     * Many rows into a table at once.
     *
     * @param string $into `insert into TABLE`
     * @param non-empty-list<array<string, mixed>> $rows each with the same columns, in the same order
     * @param string $then what becomes of those that are there
     * @param string|null $returning what is to be told of each row that was taken
     */
    public static function put(string $into, array $rows, string $then = '', ?string $returning = null): self
    {
        $marks = '('.implode(', ', array_fill(0, count($rows[0]), '?')).')';

        return new self(
            "{$into} (`".implode('`, `', array_keys($rows[0])).'`) values '
                .implode(', ', array_fill(0, count($rows), $marks))
                ." {$then}".($returning === null ? '' : " returning {$returning}"),
            array_merge(...array_map(array_values(...), $rows)),
            $returning !== null,
        );
    }
}
