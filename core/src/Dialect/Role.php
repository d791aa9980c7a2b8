<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** What a level is, whatever a platform calls it. */
enum Role: string
{
    case Account = 'account';
    case Folder = 'folder';
    case Campaign = 'campaign';
    case Group = 'group';
    case Ad = 'ad';
}
