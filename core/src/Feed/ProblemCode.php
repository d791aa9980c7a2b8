<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** What can be wrong with an item, in the order in which it is told. */
enum ProblemCode: string
{
    case NoId = 'no-id';
    case IdTwice = 'id-twice';
    case NoLink = 'no-link';
    case NotHttp = 'not-http';
    case EmptyColumn = 'empty-column';
    case TooLong = 'too-long';

    /** Is the item worse off than without us? A step that an empty cell leaves out is only counted. */
    public function isError(): bool
    {
        return $this !== self::EmptyColumn;
    }
}
