<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

/** What a stretch of a click URL is. */
enum SegmentRole: string
{
    case Landing = 'landing';
    case Text = 'text';
    case Token = 'token';
    case Custom = 'custom';
    case Suffix = 'suffix';
    case ClickId = 'click-id';
    case AutoTag = 'auto-tag';
}
