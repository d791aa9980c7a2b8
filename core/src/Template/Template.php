<?php

declare(strict_types=1);

namespace Vestigon\Core\Template;

use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Conditional;
use Vestigon\Core\Url\QueryText;

/** A slot's text, read: literals and tokens in order. Printing it gives the text back. */
final class Template
{
    /** @var array<string, true> the custom parameters that it uses, by name */
    public readonly array $customNames;

    /** @var array{QueryText|null, QueryText|null} as queryInside() gives it; made when first asked for */
    private array $inside = [null, null];

    /** @param list<Element> $parts */
    public function __construct(public readonly array $parts)
    {
        $names = [];
        foreach ($parts as $part) {
            if ($part instanceof Element\CustomParameter) {
                $names[$part->name] = true;
            } elseif ($part instanceof Conditional && $part->then->customNames !== []) {
                $names += $part->then->customNames;
            }
        }
        $this->customNames = $names;
    }

    public static function literal(string $text): self
    {
        return new self($text === '' ? [] : [new Element\Literal(0, $text)]);
    }

    public function __toString(): string
    {
        $text = '';
        $pending = array_reverse($this->parts); // conditions may stand in conditions ten thousand deep
        while (($part = array_pop($pending)) !== null) {
            $text .= is_string($part) ? $part : $part->source;
            if ($part instanceof Conditional) {
                array_push($pending, $part->close, ...array_reverse($part->then->parts));
            }
        }

        return $text;
    }

    /** Without what gives nothing in a slot, for a type of campaign: it arrives the same. */
    public function withoutDead(SlotKind $in, ?string $campaignType): self
    {
        $gives = static fn (Element $part): bool => ! ($part instanceof CatalogueToken || $part instanceof Conditional)
            || ($part->token->worksFor($campaignType)
                && ($in === SlotKind::Template || $part->token->kind !== TokenKind::Landing));

        return new self(array_values(array_filter($this->parts, $gives)));
    }

    /**
     * As a query, each conditional token whole.
     *
     * @param bool $isQuery it begins with a parameter (a suffix), not with an address
     */
    public function query(bool $isQuery): QueryText
    {
        $skeleton = implode(
            '',
            array_map(
                static fn (Element $p): string => $p instanceof Element\Literal
                    ? QueryText::fixed($p->source)
                    : str_repeat(QueryText::FILLED, strlen((string) new self([$p]))),
                $this->parts,
            ),
        );

        return QueryText::ofSlot((string) $this, $skeleton, $isQuery);
    }

    /** As a query, what stands in conditional tokens taken as if it counted. */
    public function queryInside(bool $isQuery): QueryText
    {
        return $this->inside[(int) $isQuery] ??= $this->cutInside($isQuery);
    }

    /**
     * All parts in order, those inside conditionals too, each after the one it stands in.
     *
     * @return iterable<Element>
     */
    public function walk(): iterable
    {
        $pending = array_reverse($this->parts);
        while (($part = array_pop($pending)) !== null) {
            yield $part;
            if ($part instanceof Conditional) {
                array_push($pending, ...array_reverse($part->then->parts));
            }
        }
    }

    /** @return array<string, int> how often each of the platform's tokens and custom parameters is read, by spelling */
    public function tokens(): array
    {
        $tokens = [];
        foreach ($this->parts as $part) {
            if (! ($part instanceof Element\Literal || $part instanceof Element\UnknownToken)) {
                $spelling = (string) new self([$part]);
                $tokens[$spelling] = ($tokens[$spelling] ?? 0) + 1;
            }
        }

        return $tokens;
    }

    /** Is each token of another text read here as well? */
    public function holdsTokensOf(self $other): bool
    {
        $tokens = $this->tokens();
        foreach ($other->tokens() as $spelling => $times) {
            if (($tokens[$spelling] ?? 0) < $times) {
                return false;
            }
        }

        return true;
    }

    private function cutInside(bool $isQuery): QueryText
    {
        $text = (string) $this;
        $skeleton = '';
        foreach ($this->walk() as $part) {
            // the marks around what stands in a condition
            $skeleton .= str_repeat(QueryText::UNSENT, $part->offset - strlen($skeleton));
            $skeleton .=
                $part instanceof Element\Literal
                    ? QueryText::fixed($part->source)
                    : str_repeat(QueryText::FILLED, strlen($part->source));
        }
        $skeleton .= str_repeat(QueryText::UNSENT, strlen($text) - strlen($skeleton));

        return QueryText::ofSlot($text, $skeleton, $isQuery);
    }
}
