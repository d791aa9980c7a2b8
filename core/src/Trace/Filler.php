<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Dialect\Token;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Template\Element;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Conditional;
use Vestigon\Core\Template\Element\CustomParameter;
use Vestigon\Core\Template\Element\Literal;
use Vestigon\Core\Template\Element\UnknownToken;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Query;

/** Fills one slot's template with the values of a click, as pieces. */
final class Filler
{
    /** @var list<Piece> */
    private array $pieces = [];

    private ?Pieces $tail = null;

    private bool $mendNext = false;

    private ?Origin $lastText = null;

    /**
     * @param array<string, string> $values the field values that decide conditions and emptiness
     * @param bool $symbolic values stay places to fill; else they are written in as text
     * @param Pieces|null $landing what landing tokens stand for; null: they give nothing
     */
    private function __construct(
        private readonly Path $path,
        private readonly CustomTexts $customs,
        private readonly array $values,
        private readonly bool $symbolic,
        private readonly SlotTemplate $text,
        private readonly ?Pieces $landing,
    ) {}

    /**
     * @param array<string, string> $values
     */
    public static function fill(
        Path $path,
        CustomTexts $customs,
        array $values,
        bool $symbolic,
        SlotTemplate $text,
        ?Pieces $landing = null,
    ): Pieces {
        $filler = new self($path, $customs, $values, $symbolic, $text, $landing);
        $filler->template($text->template);

        return (new Pieces($filler->pieces))->then($filler->tail ?? new Pieces());
    }

    private function template(Template $template): void
    {
        foreach ($template->parts as $part) {
            if ($part instanceof Literal) {
                $this->literal($part);
            } elseif ($part instanceof CatalogueToken) {
                $part->token->kind === TokenKind::Landing
                    ? $this->landing($part)
                    : $this->value($part->token, $this->origin($part, SegmentRole::Token, $part->token));
            } elseif ($part instanceof CustomParameter) {
                $this->custom($part);
            } elseif ($part instanceof Conditional) {
                if (in_array($this->values[$part->token->field] ?? '', $part->token->is, true)) {
                    $this->template($part->then);
                }
            } elseif ($part instanceof UnknownToken && $this->path->dialect->syntax?->keepsUnknown) {
                $this->pieces[] = new Piece($part->source, $this->textOrigin($part));
            }
        }
    }

    private function literal(Literal $part): void
    {
        $text = $part->source;
        if ($this->mendNext && $text[0] === '?') {
            $text = '&'.substr($text, 1);
        }
        $this->mendNext = false;
        $this->pieces[] = new Piece($text, $this->textOrigin($part));
    }

    private function landing(CatalogueToken $part): void
    {
        if ($this->landing === null) {
            return;
        }
        $times = $part->token->encode ?? ($part->offset === 0 ? 0 : 1);
        $landing = $this->landing;
        if ($times === 0) {
            $skeleton = $landing->skeleton();
            if ($this->path->dialect->assembly->mendsFragment) {
                $end = Query::end($skeleton);
                $this->tail = $landing->slice($end, strlen($skeleton));
                $landing = $landing->slice(0, $end);
            }
            $this->mendNext = $this->path->dialect->assembly->mendsQuestionMark && Query::of($skeleton) !== null;
        }
        array_push($this->pieces, ...$landing->encoded($times)->list);
    }

    private function value(Token $token, Origin $origin): void
    {
        $value = $this->values[$token->field] ?? '';
        if ($token->spelled($value) === '') {
            return;
        }
        $plus = $this->path->dialect->assembly->plusForSpace;
        $times = $token->encode ?? 1;
        $this->pieces[] = new Piece(
            $this->symbolic && $times > 0
                ? Value::of($token->field, $value, $times, $plus, $token->values)
                : Encoding::encode($token->spelled($value), $times, $plus),
            $origin,
        );
    }

    private function custom(CustomParameter $part): void
    {
        $custom = $this->customs->get($part->name);
        if ($custom === null) {
            return;
        }
        $name = ($this->path->dialect->customParameters->prefix ?? '').$part->name;
        foreach ($custom->template->parts as $inner) {
            if ($inner instanceof Literal) {
                $this->pieces[] = new Piece(
                    Encoding::encode($inner->source, 1, $this->path->dialect->assembly->plusForSpace),
                    new Origin(SegmentRole::Custom, $this->text->slot->kind, $custom->node, $name),
                );
            } elseif ($inner instanceof CatalogueToken && $inner->token->kind === TokenKind::Value) {
                $this->value(
                    $inner->token,
                    new Origin(
                        SegmentRole::Custom,
                        $this->text->slot->kind,
                        $custom->node,
                        $name,
                        $inner->token->field,
                    ),
                );
            }
        }
    }

    /** Fixed text of one node has one origin. */
    private function textOrigin(Element $part): Origin
    {
        $node = $this->text->slot->ownerAt($part->offset);
        if ($this->lastText?->node === $node) {
            return $this->lastText;
        }
        $role = match ($this->text->slot->kind) {
            SlotKind::Template => SegmentRole::Text,
            SlotKind::Suffix => SegmentRole::Suffix,
            SlotKind::Landing => SegmentRole::Landing,
        };

        return $this->lastText = new Origin($role, $this->text->slot->kind, $node);
    }

    private function origin(Element $part, SegmentRole $role, ?Token $token = null): Origin
    {
        $slot = $this->text->slot;

        return new Origin($role, $slot->kind, $slot->ownerAt($part->offset), $token?->name, $token?->field);
    }
}
