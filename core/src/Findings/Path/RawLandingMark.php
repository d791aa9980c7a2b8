<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Literal;
use Vestigon\Core\Url\Address;
use Vestigon\Core\Url\Query;

/**
 * second-question-mark and behind-fragment, where only the landing URL makes them: a template that goes on behind a
 * landing URL that already has a ? or a #.
 */
final readonly class RawLandingMark implements PathRule
{
    public function check(Standing $standing): iterable
    {
        $template = $standing->texts->template;
        $landing = $standing->texts->landing?->slot->text ?? '';
        [$first, $next] = [$template?->template->parts[0] ?? null, $template?->template->parts[1] ?? null];
        $isRaw =
            $first instanceof CatalogueToken
            && $first->token->kind === TokenKind::Landing
            && in_array($first->token->encode, [null, 0], true);
        if (
            $template === null
            || ! $isRaw
            || ! ($next instanceof Literal)
            || ! in_array($next->source[0], ['?', '&'], true)
        ) {
            return;
        }
        $assembly = $standing->path->dialect->assembly;
        $at = $template->slot->within($next->offset);
        $owner = $template->slot->ownerAt($next->offset);
        if (str_contains($landing, '#') && ! $assembly->mendsFragment) {
            yield new Finding(
                'behind-fragment',
                Severity::Error,
                'The landing URL has a #, so all that the template puts behind it never reaches the page.',
                $owner,
                $template->slot->kind,
                at: $at,
                length: strlen($next->source),
            );
        } elseif (
            $next->source[0] === '?'
            && ! $assembly->mendsQuestionMark
            && str_contains($this->before($standing, $landing), '?')
            && ! $this->isOfTheTracker($standing, $landing)
        ) {
            yield new Finding(
                'second-question-mark',
                Severity::Error,
                'The landing URL has a query already, so this ? is the second one and becomes part of a value.',
                $owner,
                $template->slot->kind,
                at: $at,
                length: 1,
            );
        }
    }

    /**
     * Is the landing URL a tracker's link, and what goes on behind it no harm? Behind the page that it leads to, that
     * begins the page's query where it has none; behind another parameter, a tracker that passes nothing on keeps it.
     */
    private function isOfTheTracker(Standing $standing, string $landing): bool
    {
        $hop = $standing->hop();
        [$key, $page] = array_slice(Query::read($landing), -1)[0] ?? ['', ''];
        if ($hop === null || $hop->to !== $key || $this->isJoined($standing)) {
            return $hop?->appends === false;
        }

        return Address::isWeb($page) && Query::of($page) === null && ! str_contains($page, '#');
    }

    /** The landing URL as the template gets it, as far as a question mark goes. */
    private function before(Standing $standing, string $landing): string
    {
        return substr($landing, 0, Query::end($landing)).($this->isJoined($standing) ? '?' : '');
    }

    /** Does the platform put something of the account's or its own behind the landing URL before the template? */
    private function isJoined(Standing $standing): bool
    {
        $dialect = $standing->path->dialect;

        return ($standing->texts->suffix !== null && ! $dialect->assembly->suffixJoinsClick)
            || $standing->settings->joinLanding($dialect);
    }
}
