<?php

declare(strict_types=1);

namespace Vestigon\Core\Template;

use Vestigon\Core\Url\QueryText;

/** A slot's text, read: literals and tokens in order. Printing it gives the text back. */
final readonly class Template
{
    /** @var array<string, true> the custom parameters that it uses, by name */
    public array $customNames;

    /** @param list<Part> $parts */
    public function __construct(public array $parts)
    {
        $names = [];
        foreach ($parts as $part) {
            if ($part instanceof Part\CustomParameter) {
                $names[$part->name] = true;
            } elseif ($part instanceof Part\Conditional && $part->then->customNames !== []) {
                $names += $part->then->customNames;
            }
        }
        $this->customNames = $names;
    }

    public static function literal(string $text): self
    {
        return new self($text === '' ? [] : [new Part\Literal(0, $text)]);
    }

    public function __toString(): string
    {
        return implode('', array_map(static fn (Part $p): string => $p instanceof Part\Conditional ? $p->source.$p->then.$p->close : $p->source, $this->parts));
    }

    /**
     * As a query, each conditional token whole.
     *
     * @param bool $isQuery it begins with a parameter (a suffix), not with an address
     */
    public function query(bool $isQuery): QueryText
    {
        $skeleton = implode('', array_map(static fn (Part $p): string => $p instanceof Part\Literal ? QueryText::fixed($p->source) : str_repeat(QueryText::FILLED, strlen((string) new self([$p]))), $this->parts));

        return QueryText::ofSlot((string) $this, $skeleton, $isQuery);
    }

    /** As a query, what stands in conditional tokens taken as if it counted. */
    public function queryInside(bool $isQuery): QueryText
    {
        $text = (string) $this;
        $skeleton = str_repeat(QueryText::UNSENT, strlen($text));
        foreach ($this->walk() as $part) {
            $bones = $part instanceof Part\Literal ? QueryText::fixed($part->source) : str_repeat(QueryText::FILLED, strlen($part->source));
            $skeleton = substr_replace($skeleton, $bones, $part->offset, strlen($bones));
        }

        return QueryText::ofSlot($text, $skeleton, $isQuery);
    }

    /**
     * All parts in order, those inside conditionals too, each after the one it stands in.
     *
     * @return iterable<Part>
     */
    public function walk(): iterable
    {
        $pending = array_reverse($this->parts);
        while (($part = array_pop($pending)) !== null) {
            yield $part;
            if ($part instanceof Part\Conditional) {
                array_push($pending, ...array_reverse($part->then->parts));
            }
        }
    }
}
