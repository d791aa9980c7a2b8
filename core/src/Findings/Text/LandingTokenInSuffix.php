<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;
use Vestigon\Core\Template\Element\CatalogueToken;

/** landing-token-in-suffix: a landing token in a suffix or a landing URL gives nothing. */
final readonly class LandingTokenInSuffix implements TextRule
{
    public function check(Spot $spot): iterable
    {
        if (! in_array($spot->slot, [SlotKind::Suffix, SlotKind::Landing], true) || ! $spot->fillsTokens()) {
            return;
        }
        foreach ($spot->template->walk() as $part) {
            if ($part instanceof CatalogueToken && $part->token->kind === TokenKind::Landing) {
                $length = strlen($part->source);
                $length += strspn($spot->text, '?&', $part->offset + $length);
                yield $spot->finding(
                    'landing-token-in-suffix',
                    Severity::Error,
                    "{$part->source} gives nothing in a {$spot->called()}: it belongs into a template.",
                    $part->offset,
                    strlen($part->source),
                    fix: $spot->instead("take {$part->source} out", $part->offset, $length, ''),
                );
            }
        }
    }
}
