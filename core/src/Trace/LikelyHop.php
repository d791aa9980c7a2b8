<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Dialect\TokenKind;
use Vestigon\Core\Template\Element\CatalogueToken;
use Vestigon\Core\Template\Element\Literal;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Url\Address;
use Vestigon\Core\Url\QueryPiece;
use Vestigon\Core\Url\QueryText;

/** A redirect that a text seems to pass: a host of its own, with the way on inside one of its parameters. */
final readonly class LikelyHop
{
    /** @param bool $isSure it can hardly be anything else; whether it forwards is a guess all the same */
    private function __construct(public Hop $hop, public bool $isSure, public string $why) {}

    /** Of a template: `https://go.tracker.example/r?to={landing, encoded}&k=1`. */
    public static function inTemplate(string $text, TemplateReader $reader): ?self
    {
        $template = $reader->read($text);
        $first = $template->parts[0] ?? null;
        $host = $first instanceof Literal ? self::wholeHost($first->source) : '';
        if ($host === '') {
            return null;
        }
        foreach ($template->walk() as $part) {
            if (! $part instanceof CatalogueToken || $part->token->kind !== TokenKind::Landing) {
                continue;
            }
            foreach (self::keyed($text) as $piece) {
                if ($piece->valueAt <= $part->offset && $part->offset < $piece->at + strlen($piece->text)) {
                    $isEncoded = ($part->token->encode ?? 0) > 0;

                    return self::of(
                        $host,
                        $piece,
                        $text,
                        $isEncoded,
                        $isEncoded
                            ? "The landing URL stands encoded in its parameter “{$piece->name()}”."
                            : "The landing URL stands in its parameter “{$piece->name()}”, and not encoded.",
                    );
                }
            }
        }

        return null;
    }

    /** Of a landing URL: `https://go.tracker.example/r?url=https%3A%2F%2Fshop.example%2F`. */
    public static function inLanding(string $url): ?self
    {
        $host = Address::host($url);
        foreach ($host === '' ? [] : self::keyed($url) as $piece) {
            $inside = Address::host(rawurldecode((string) $piece->value));
            if ($inside !== '' && $inside !== $host) {
                $why = "A web address of {$inside} stands in its parameter “{$piece->name()}”.";

                return self::of($host, $piece, $url, true, $why);
            }
        }

        return null;
    }

    /** Text beside the way on is there to be handed on; with none beside it, nothing says so. */
    private static function of(string $host, QueryPiece $to, string $text, bool $isSure, string $why): self
    {
        $beside = array_filter(self::keyed($text), static fn (QueryPiece $p): bool => $p->at !== $to->at);

        return new self(
            new Hop($host, $to->name(), $beside !== []),
            $isSure,
            $why.($beside === []
                ? ' Nothing stands beside it, so it may forward nothing.'
                : ' Other parameters stand beside it, so it seems to forward them.'),
        );
    }

    /** @return list<QueryPiece> parameters with a value and a key that no token fills in */
    private static function keyed(string $text): array
    {
        return array_values(
            array_filter(
                QueryText::ofUrl($text)->parameters(),
                static fn (QueryPiece $p): bool => $p->value !== null && $p->key !== '',
            ),
        );
    }

    /** The host, if it ends within this literal text. */
    private static function wholeHost(string $literal): string
    {
        return preg_match('~^https?://[^/?#]+[/?#]~', $literal) === 1 ? Address::host($literal) : '';
    }
}
