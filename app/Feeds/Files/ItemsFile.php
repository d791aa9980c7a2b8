<?php

namespace App\Feeds\Files;

use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Feed\Form;

/** A product list's file, piece by piece, whatever its length. Written one after the other the pieces are the file. */
interface ItemsFile
{
    /** An item that is longer was never meant to be one. */
    public const LONGEST = 1 << 20;

    /**
     * @return iterable<Piece>
     *
     * @throws UnusableInput it is not what it says it is, with the place
     */
    public function pieces(): iterable;

    public function form(): Form;

    /** The ending of a file of that form. */
    public function ending(): string;
}
