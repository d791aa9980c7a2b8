<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;

/** behind-fragment: what stands behind # never reaches the page's server, nor is it read as a parameter. */
final readonly class BehindFragment implements TextRule
{
    public function check(Spot $spot): iterable
    {
        $fragmentAt = null;
        foreach ($spot->slot === null ? [] : $spot->pairs as $pair) {
            if ($pair->mark === '#') {
                $fragmentAt ??= $pair->at - 1;
            }
            $tracks =
                $pair->value !== null
                && ($spot->slot !== SlotKind::Landing || in_array($pair->key, $spot->keys, true));
            if ($fragmentAt !== null && $tracks) {
                yield $spot->finding(
                    'behind-fragment',
                    Severity::Error,
                    "{$pair->key} stands behind #, so no page's server and no analytics reads it.",
                    $pair->at,
                    strlen($pair->key),
                    key: $pair->keyFixed ? $pair->key : null,
                );
            }
        }
    }
}
