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
use Vestigon\Core\Trace\Hop;
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
            && str_contains($before = $this->before($standing, $landing), '?')
            && ! $this->beginsThePagesQuery($before, $standing->hops)
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
     * Is the landing URL a tracker's link whose last value is a page without a query? Then what goes on behind it goes
     * on behind the page.
     *
     * @param string $before the landing URL as the template gets it
     * @param list<Hop> $hops
     */
    private function beginsThePagesQuery(string $before, array $hops): bool
    {
        [$key, $page] = array_slice(Query::read($before), -1)[0] ?? ['', ''];
        foreach ($hops as $hop) {
            if ($hop->host === Address::host($before) && $hop->to === $key) {
                return Address::isWeb($page) && Query::of($page) === null && ! str_contains($page, '#');
            }
        }

        return false;
    }

    /** The landing URL as the template gets it, as far as a question mark goes. */
    private function before(Standing $standing, string $landing): string
    {
        $dialect = $standing->path->dialect;
        $joins =
            ($standing->texts->suffix !== null && ! $dialect->assembly->suffixJoinsClick)
            || $standing->settings->joinLanding($dialect);

        return substr($landing, 0, Query::end($landing)).($joins ? '?' : '');
    }
}
