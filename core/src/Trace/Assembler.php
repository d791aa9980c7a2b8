<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\AutoTagMode;
use Vestigon\Core\Dialect\AutoTags;
use Vestigon\Core\Dialect\Delivery;
use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Query;

/** Assembles the click as the platform does, step by step, with the values left open. */
final readonly class Assembler
{
    public function __construct(private Path $path, private Texts $texts, private Settings $settings) {}

    /**
     * @param array<string, string> $values
     * @param bool $symbolic leave values open; false writes them in, and the shape is then good for this one click only
     * @return Blueprint|null null if the values can't be left open, since a key depends on them
     */
    public function make(array $values, bool $symbolic): ?Blueprint
    {
        $dialect = $this->path->dialect;
        if ($this->texts->landing === null) {
            return new Blueprint(null, null);
        }
        $fill = fn (SlotTemplate $text, ?Pieces $landing = null): Pieces => Filler::fill(
            $this->path,
            $this->texts->customs,
            $values,
            $symbolic,
            $text,
            $landing,
        );

        $page = $landing = $fill($this->texts->landing);
        $suffix = $this->texts->suffix === null ? new Pieces() : $fill($this->texts->suffix);
        if (! $dialect->assembly->suffixJoinsClick) {
            $landing = $landing->join($suffix);
        }
        if (
            $dialect->autoTags !== null
            && ($mode = $this->settings->autoTags ?? $dialect->autoTags->default) !== AutoTagMode::Off
        ) {
            if ($landing->hasValueInKey()) {
                return null;
            }
            $landing = $this->tagged($landing, $dialect->autoTags, $mode, $values, $symbolic);
        }
        if ($dialect->clickId?->isOn($this->settings->clickId)) {
            $origin = new Origin(SegmentRole::ClickId, token: $dialect->clickId->parameter, field: 'click.id');
            $landing = $landing->join(
                new Pieces([
                    new Piece($dialect->clickId->parameter.'=', $origin),
                    ...self::value('click.id', $values, $symbolic, false, $origin),
                ]),
            );
        }
        $click = $this->texts->template === null ? $landing : $fill($this->texts->template, $landing);
        if ($dialect->assembly->suffixJoinsClick) {
            $click = $click->join($suffix);
            $landing = $landing->join($suffix);
        }

        return new Blueprint($click, $this->passesHopsBy() ? $landing : null, $page);
    }

    /** @param array<string, string> $values */
    private function tagged(
        Pieces $landing,
        AutoTags $tags,
        AutoTagMode $mode,
        array $values,
        bool $symbolic,
    ): Pieces {
        $keys = array_map(static fn (array $piece): string => Query::decoded($piece[2]), $landing->queryPieces());
        if ($mode === AutoTagMode::Replace) {
            $landing = self::without($landing, array_map(static fn ($tag): string => $tag->key, $tags->tags));
            $keys = [];
        }
        foreach ($tags->tags as $tag) {
            if (! in_array($tag->key, $keys, true)) {
                $origin = new Origin(SegmentRole::AutoTag, token: $tag->key, field: $tag->field);
                $value =
                    $tag->field === null
                        ? [
                            new Piece(
                                Encoding::encode(
                                    $tag->text ?? '',
                                    1,
                                    $this->path->dialect->assembly->plusForSpace,
                                ),
                                $origin,
                            ),
                        ]
                        : self::value(
                            $tag->field,
                            $values,
                            $symbolic,
                            $this->path->dialect->assembly->plusForSpace,
                            $origin,
                        );
                $landing = $landing->join(new Pieces([new Piece($tag->key.'=', $origin), ...$value]));
            }
        }

        return $landing;
    }

    /** @param list<string> $keys */
    private static function without(Pieces $url, array $keys): Pieces
    {
        $all = $url->queryPieces();
        $kept = array_values(
            array_filter(
                $all,
                static fn (array $p): bool => $p[0] === $p[1] || ! in_array(Query::decoded($p[2]), $keys, true),
            ),
        );
        if (count($kept) === count($all)) {
            return $url;
        }
        $skeleton = $url->skeleton();
        $list = $url->slice(0, Query::before($skeleton, '?'))->list;
        foreach ($kept as $i => [$from, $to]) {
            // each piece takes the mark before it along; the first one's is the question mark
            $mark = $i === 0 ? Query::before($skeleton, '?') : $from - 1;
            array_push($list, ...$url->slice($mark, $mark + 1)->list, ...$url->slice($from, $to)->list);
        }

        return (new Pieces($list))->then($url->slice(Query::end($skeleton), strlen($skeleton)));
    }

    /**
     * @param array<string, string> $values
     * @return list<Piece>
     */
    private static function value(string $field, array $values, bool $symbolic, bool $plus, Origin $origin): array
    {
        $known = $values[$field] ?? '';

        return match (true) {
            $known === '' => [],
            $symbolic => [new Piece(Value::of($field, $known, 1, $plus, null), $origin)],
            default => [new Piece(Encoding::encode($known, 1, $plus), $origin)],
        };
    }

    /**
     * Parallel delivery with a template that does not begin with the raw landing URL: the browser goes to the page at
     * once.
     */
    private function passesHopsBy(): bool
    {
        $delivery = $this->settings->delivery ?? ($this->path->dialect->delivery[0] ?? Delivery::Sequence);
        if ($delivery !== Delivery::Parallel || $this->texts->template === null) {
            return false;
        }
        $first = $this->texts->template->template->parts[0] ?? null;
        $beginsRaw =
            $first instanceof CatalogueToken
            && $first->token->kind === TokenKind::Landing
            && in_array($first->token->encode, [null, 0], true);

        return ! $beginsRaw;
    }
}
