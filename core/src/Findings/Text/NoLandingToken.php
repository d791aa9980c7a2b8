<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Text;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Findings\Fix;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Spot;
use Vestigon\Core\Findings\TextRule;
use Vestigon\Core\Template\Element\CatalogueToken;

/** no-landing-token: a template without a landing token leads nowhere near the landing page. */
final readonly class NoLandingToken implements TextRule
{
    public function check(Spot $spot): iterable
    {
        if ($spot->slot !== SlotKind::Template) {
            return;
        }
        foreach ($spot->template->walk() as $part) {
            if ($part instanceof CatalogueToken && $part->token->kind === TokenKind::Landing) {
                return;
            }
        }
        $refuses = $spot->dialect->slot(SlotKind::Template)->needsLanding ?? false;
        yield $spot->finding(
            'no-landing-token',
            Severity::Error,
            'The template has no landing token, so clicks do not reach the landing page'
                .($refuses ? "; {$spot->dialect->title} refuses it." : '.'),
            fix: $this->fix($spot),
        );
    }

    /** Query text without an address belongs behind the landing URL. */
    private function fix(Spot $spot): ?Fix
    {
        $landing = $spot->dialect->rawLanding();
        if ($landing === null || str_contains($spot->text, '://') || ! str_contains($spot->text, '=')) {
            return null;
        }
        $written = $spot->dialect->written($landing->name);

        return new Fix("put {$written} first", $written.'?'.ltrim($spot->text, '?&'));
    }
}
