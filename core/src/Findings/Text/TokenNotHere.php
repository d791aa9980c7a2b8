<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;
use Vestigon\Core\Template\Element;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Conditional;
use Vestigon\Core\Template\Element\CustomParameter;

/**
 * token-not-here: a token that the platform knows, at a level, in a slot or for a campaign type where it gives nothing.
 */
final readonly class TokenNotHere implements TextRule
{
    public function check(Spot $spot): iterable
    {
        foreach ($spot->template->walk() as $part) {
            $why = $this->why($spot, $part);
            if ($why !== null) {
                $shown = $part instanceof Conditional ? $part->source.'…'.$part->close : $part->source;
                yield $spot->finding(
                    'token-not-here',
                    Severity::Error,
                    "{$shown} gives nothing here: {$why}.",
                    $part->offset,
                    strlen($part->source),
                );
            }
        }
    }

    private function why(Spot $spot, Element $part): ?string
    {
        $isToken = $part instanceof CatalogueToken || $part instanceof Conditional;
        if (! $isToken && ! ($part instanceof CustomParameter)) {
            return null;
        }
        if (! $spot->fillsTokens()) {
            return "{$spot->dialect->title} fills no tokens in landing URLs, so it is sent as it stands";
        }
        if (
            $spot->slot === null
            && ! ($part instanceof CatalogueToken && $part->token->kind === TokenKind::Value)
        ) {
            return 'inside a custom parameter only value tokens are filled';
        }
        if ($isToken && ! $part->token->worksFor($spot->type)) {
            return 'it works on '
                .implode(' and ', $part->token->campaignTypes ?? [])
                ." campaigns only, and this is for {$spot->type} campaigns";
        }

        return null;
    }
}
