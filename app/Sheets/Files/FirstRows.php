<?php

namespace App\Sheets\Files;

/** The first rows of a table: what it is can be told from them. */
final class FirstRows
{
    /** @return list<list<string|int|float|null>> */
    public static function of(Table $table, int $most): array
    {
        $first = [];
        foreach ($table->rows() as $row) {
            $first[] = $row;
            if (count($first) === $most) {
                break;
            }
        }

        return $first;
    }
}
