<?php

declare(strict_types=1);

namespace Vestigon\Core\Link\Rule;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Link\LinkRule;
use Vestigon\Core\Link\Sight;

/** no-page: a link leads to a web page: `http` or `https`, and a host. */
final readonly class NoPage implements LinkRule
{
    public function check(Sight $sight): iterable
    {
        if (preg_match('~^https?://[^/?#\s@]+(?:[/?#]|$)~i', $sight->link->landing) !== 1) {
            yield new Finding(
                'not-http',
                Severity::Error,
                'This is no address of a web page: it begins with https:// and a host, like https://velmar.example/.',
            );
        } elseif (preg_match('~[\s\x00-\x1F\x7F]~', $sight->link->landing) === 1) {
            yield new Finding(
                'not-http',
                Severity::Error,
                'There is white space, or what can’t be seen, in the address of the page.',
            );
        }
    }
}
