<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** Is a listing by this link paid for? */
enum LinkKind: string
{
    case Paid = 'paid';
    case Unpaid = 'unpaid';
}
