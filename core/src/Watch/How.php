<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** What has told where a view came from. */
enum How: string
{
    case Keys = 'keys';

    case ClickId = 'click-id';

    case Referrer = 'referrer';

    case None = 'none';
}
