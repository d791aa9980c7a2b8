<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Arrival;

use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Url\Query;

/**
 * landing-distorted: the page that opens is not the one that the ad says, or its own parameters or fragment are
 * changed.
 */
final readonly class LandingDistorted implements ClickRule
{
    public function breaks(): bool
    {
        return true;
    }

    public function check(Click $click): iterable
    {
        $landed = $click->trace->landed;
        $why =
            $landed === null || $click->landing === null
                ? null
                : $this->distortion($landed, $click->landing, $click);
        if ($why !== null) {
            yield new Flaw('landing-distorted', Severity::Error, true, $why, null, $click->landing, [
                (string) $landed,
            ]);
        }
    }

    private function distortion(string $landed, string $landing, Click $click): ?string
    {
        $page = static fn (string $url): string => substr($url, 0, strcspn($url, '?#'));
        $fragment = static fn (string $url): string => substr($url, Query::end($url));
        if ($page($landed) !== $page($landing)) {
            return 'The click lands on another page than the ad says.';
        }
        if ($fragment($landed) !== $fragment($landing)) {
            return 'The landing page\'s fragment is changed: '
                .Click::quoted($fragment($landed))
                .'. What stands behind # never reaches the page\'s server.';
        }
        foreach (Query::read($landing) as $own) {
            if (! in_array($own[0], $click->planKeys, true) && ! in_array($own, $click->trace->arrival, true)) {
                return "The landing page's own parameter {$own[0]} does not arrive as it is.";
            }
        }

        return null;
    }
}
