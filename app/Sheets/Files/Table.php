<?php

namespace App\Sheets\Files;

use Vestigon\Core\Document\UnusableInput;

/** A table of a file that somebody has brought. */
interface Table
{
    /** Its name in the file; else the file's. */
    public function title(): string;

    /** What a person should know of how it was read, such as its encoding. */
    public function form(): Form;

    /**
     * Every row from the first, those that are empty too.
     *
     * @return iterable<list<string|int|float|null>>
     *
     * @throws UnusableInput it can't be read on
     */
    public function rows(): iterable;
}
