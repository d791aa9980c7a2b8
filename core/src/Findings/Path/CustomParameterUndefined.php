<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;
use Vestigon\Core\Template\Part\CustomParameter;

/** custom-parameter-undefined: a text uses a custom parameter that nobody on the way up has set. */
final readonly class CustomParameterUndefined implements PathRule
{
    public function check(Standing $standing): iterable
    {
        foreach ($standing->parts() as [$part, $owner, $slot]) {
            if ($part instanceof CustomParameter && $standing->texts->customs->get($part->name) === null) {
                yield new Finding('custom-parameter-undefined', Severity::Error, "{$part->source} is set neither on the ad nor above it, so it gives nothing.", $owner, $slot->slot->kind, at: $slot->slot->within($part->offset), length: strlen($part->source));
            }
        }
    }
}
