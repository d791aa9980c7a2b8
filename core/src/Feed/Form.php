<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** How a product list is written. */
enum Form: string
{
    case Delimited = 'delimited';
    case Xml = 'xml';
    case Ndjson = 'ndjson';
}
