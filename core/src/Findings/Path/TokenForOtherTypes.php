<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Conditional;

/** token-not-here, where a text above the campaigns uses a token that some campaign types don't have. */
final readonly class TokenForOtherTypes implements PathRule
{
    public function check(Standing $standing): iterable
    {
        $type = $standing->path->campaignType();
        $depth = $standing->path->campaignDepth() ?? 0;
        foreach ($standing->parts() as [$part, $owner, $slot]) {
            $isToken = $part instanceof CatalogueToken || $part instanceof Conditional;
            if (
                $isToken
                && ! $part->token->worksFor($type)
                && ($standing->path->dialect->level($owner->level)->depth ?? 0) < $depth
            ) {
                yield new Finding(
                    'token-not-here',
                    Severity::Warning,
                    "{$part->source} gives nothing on {$type} campaigns; it works on "
                        .implode(' and ', $part->token->campaignTypes ?? [])
                        .' campaigns only.',
                    $owner,
                    $slot->slot->kind,
                    at: $slot->slot->within($part->offset),
                    length: strlen($part->source),
                );
            }
        }
    }
}
