<?php

namespace App\Sheets\Files;

use Vestigon\Core\Document\UnusableInput;

/** Refuses a row with more columns than can be taken. */
final class TooWide
{
    /** @throws UnusableInput */
    public static function refuse(int $columns, int $row, string $name): void
    {
        $most = config('limits.columns');
        if ($columns > $most) {
            throw new UnusableInput(
                "row {$row} of {$name} has ".number_format($columns).' columns; at most '.number_format($most)
                    .' can be taken',
            );
        }
    }
}
