<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Trace\Trace;

/** An ad whose click a URL can be, to the last character, and what it tells of that click. */
final readonly class Fit
{
    /**
     * @param Version $version the ad, as it stood then
     * @param array<string, string> $values field → value, as read out of the URL
     * @param Trace $trace the click, made again
     */
    public function __construct(public Version $version, public array $values, public Trace $trace) {}
}
