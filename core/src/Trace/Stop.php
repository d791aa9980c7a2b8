<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

/** What became of a URL on the trail. */
enum Stop: string
{
    case Hop = 'hop';
    case Landed = 'landed';
    /** Not a web address, or a hop without a usable destination. */
    case Broken = 'broken';
    /** More than ten hops. */
    case Endless = 'endless';
}
