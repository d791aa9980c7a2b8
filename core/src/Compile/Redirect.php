<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Token;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Template\Element;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Literal;
use Vestigon\Core\Template\StrangeWord;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Url\Address;
use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Query;

/**
 * The way that a template takes to the landing page: straight, or over hops, each inside the one before.
 *
 * The landing URL inside n hops has to be encoded n times: every hop decodes once.
 */
final readonly class Redirect
{
    /** Redirects inside redirects are looked into this deep. */
    private const DEEPEST = 3;

    /**
     * @param list<Hop> $hops those passed, the first one first
     * @param int|null $landing the template's part that is the landing URL; null: the way does not lead there
     * @param string $destination what the last hop leads to, a mark in place of each token
     * @param bool $isOpen nothing stands behind the destination in any of the hops but the first
     * @param bool $isPage an address that stands there is the page
     */
    private function __construct(
        private Template $template,
        private array $hops,
        private ?int $landing,
        private string $destination = '',
        private bool $isOpen = true,
        private bool $isPage = false,
    ) {}

    /**
     * The way that a landing URL takes: where it leads is the page.
     *
     * @param list<Hop> $known
     */
    public static function ofLanding(Template $landing, array $known): self
    {
        $way = self::of($landing, $known);

        return new self($landing, $way->hops, $way->landing, $way->destination, $way->isOpen, true);
    }

    /** @param list<Hop> $known */
    public static function of(Template $template, array $known): self
    {
        $word = StrangeWord::to((string) $template);
        $url = self::withMarks($template, $word);
        $passed = [];
        $isOpen = true;
        while (Address::isWeb($url)) {
            $host = Address::host($url);
            $hop = array_values(array_filter($known, static fn (Hop $h): bool => $h->host === $host))[0] ?? null;
            $next = $hop === null ? null : self::destination($url, $hop->to);
            if ($hop === null || $next === null) {
                return new self($template, $passed, null, $hop === null ? $url : '', $isOpen);
            }
            $isOpen = $isOpen && ($passed === [] || array_slice(Query::read($url), -1)[0][0] === $hop->to);
            [$passed[], $url] = [$hop, $next];
        }
        $isLanding =
            preg_match("~^{$word}(\d+)x~", $url, $mark) === 1
            && self::landingToken($template->parts[(int) $mark[1]]) !== null;

        return new self($template, $passed, $isLanding ? (int) $mark[1] : null, $url, $isOpen);
    }

    public function isStraight(): bool
    {
        return $this->hops === [];
    }

    /** Do parameters at the end of the template reach the landing page? */
    public function carries(): bool
    {
        return $this->leadsThere() && array_filter($this->hops, static fn (Hop $h): bool => ! $h->appends) === [];
    }

    /**
     * How often parameters have to be encoded once more to be part of the landing URL inside the hops; null: they can't
     * be.
     */
    public function depth(): ?int
    {
        return $this->hops !== []
            && $this->leadsThere()
            && $this->isOpen
            && ! str_contains($this->destination, '#')
            ? count($this->hops)
            : null;
    }

    /**
     * The text with parameters behind the landing URL inside the hops.
     *
     * @param string $pairs encoded as deep as they stand there
     * @param bool $joinsOn the landing URL has a query by then
     */
    public function inside(string $pairs, bool $joinsOn): string
    {
        $separator = str_contains($this->destination, '?') || $joinsOn ? '&' : '?';
        $text = '';
        $isIn = false;
        foreach ($this->template->query(false)->pieces as $piece) {
            $isIt = ! $isIn && $piece->hasKey($this->hops[0]->to);
            $text .=
                $piece->behind($piece->mark)
                .($isIt ? Encoding::encode($separator, count($this->hops)).$pairs : '');
            $isIn = $isIn || $isIt;
        }

        return $text;
    }

    /**
     * The template with the landing URL encoded as often as its hops decode it, where the platform has a token for
     * that.
     */
    public function mended(Dialect $dialect): Template
    {
        if ($this->landing === null || $this->encoded() === count($this->hops) || $dialect->syntax === null) {
            return $this->template;
        }
        foreach ($dialect->tokens as $token) {
            if (
                $token->kind === TokenKind::Landing
                && ($token->encode === count($this->hops)
                    || ($token->encode === null && count($this->hops) === min(1, $this->landing)))
            ) {
                $parts = $this->template->parts;
                $parts[$this->landing] = new CatalogueToken(
                    $parts[$this->landing]->offset,
                    $dialect->written($token->name),
                    $token,
                );

                return new Template(array_values($parts));
            }
        }

        return $this->template;
    }

    /**
     * A text without some pairs of the destinations in it: `to={landing}%26key%3Dvalue`; nor of one inside that,
     * encoded once more.
     *
     * @param list<string> $keys
     */
    public static function without(string $text, array $keys): string
    {
        $ends = '&';
        for ($times = 1; $times <= self::DEEPEST; $times++) {
            [$and, $mark, $equals] = array_map(static fn (string $c): string => Encoding::encode($c, $times), [
                '&',
                '?',
                '=',
            ]);
            $value = "(?:(?!{$and}|{$ends}).)*";
            foreach ($keys as $key) {
                $pair = preg_quote(Encoding::encode($key, $times), '~')."(?:{$equals}{$value})?";
                $text = (string) preg_replace("~({$mark}){$pair}({$and}|(?={$ends}|$))~i", '$1', $text);
                $text = (string) preg_replace("~{$and}{$pair}(?={$and}|{$ends}|$)~i", '', $text);
            }
            $text = (string) preg_replace("~{$mark}(?={$ends}|$)~i", '', $text);
            $ends .= "|{$and}";
        }

        return $text;
    }

    /**
     * Does the way lead to the page: to the landing URL, encoded as often as its hops decode it, or to an address that
     * stands there?
     */
    private function leadsThere(): bool
    {
        return $this->landing === null
            ? $this->isPage && Address::isWeb($this->destination)
            : $this->encoded() === count($this->hops);
    }

    /**
     * How often the landing URL is encoded where it stands; a token that decides by its place leaves it raw at the very
     * start only.
     */
    private function encoded(): int
    {
        return self::landingToken($this->template->parts[(int) $this->landing])->encode
            ?? min(1, (int) $this->landing);
    }

    private static function landingToken(Element $part): ?Token
    {
        return $part instanceof CatalogueToken && $part->token->kind === TokenKind::Landing ? $part->token : null;
    }

    /** The template's text with a mark in place of each token. */
    private static function withMarks(Template $template, string $word): string
    {
        return implode(
            '',
            array_map(
                static fn (Element $p, int $i): string => $p instanceof Literal ? $p->source : "{$word}{$i}x",
                $template->parts,
                array_keys($template->parts),
            ),
        );
    }

    private static function destination(string $url, string $to): ?string
    {
        foreach (Query::read($url) as [$key, $value]) {
            if ($key === $to) {
                return $value;
            }
        }

        return null;
    }
}
