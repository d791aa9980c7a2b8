<?php

declare(strict_types=1);

namespace Vestigon\Core\Url;

/**
 * A text cut at the `?`, `&` and `#` that stand in it as they are; what is filled in at the click is whole. Put
 * together again it is the same text. The one place where queries are taken apart, be it a slot's text, a URL in the
 * making, or a URL that arrived.
 *
 * It is cut by its skeleton: a text of the same length with a byte for each byte.
 */
final readonly class QueryText
{
    /** In a skeleton: of something that is filled in at the click. */
    public const FILLED = "\0";

    /** In a skeleton: of the marks around a text that counts under a condition. */
    public const UNSENT = "\1";

    /** @param list<QueryPiece> $pieces in order; of a template or URL the first is the address */
    private function __construct(public array $pieces, private bool $isQuery) {}

    /** A URL: its query begins at the first `?`, and a second one is part of a value. */
    public static function ofUrl(string $url): self
    {
        return new self(self::cut($url, self::fixed($url), false, true), false);
    }

    /**
     * A slot's text: every `?` may come to be the first.
     *
     * @param string $skeleton as fixed() makes it, FILLED and UNSENT where tokens stand
     * @param bool $isQuery it begins with a parameter, not with an address
     */
    public static function ofSlot(string $text, string $skeleton, bool $isQuery): self
    {
        return new self(self::cut($text, $skeleton, $isQuery, false), $isQuery);
    }

    /** The skeleton of text that is sent as it stands. */
    public static function fixed(string $text): string
    {
        return (string) preg_replace('/[^?&#=]/', '.', $text);
    }

    /** @return list<QueryPiece> */
    public function parameters(): array
    {
        return array_values(array_filter($this->pieces, static fn (QueryPiece $p): bool => $p->isParameter));
    }

    /** @return list<string> the keys that have a value, decoded */
    public function keys(): array
    {
        return array_map(
            static fn (QueryPiece $p): string => $p->name(),
            array_values(array_filter($this->parameters(), static fn (QueryPiece $p): bool => $p->value !== null)),
        );
    }

    /** @param list<string> $keys */
    public function without(array $keys): string
    {
        $text = '';
        $mark = null;
        foreach ($this->pieces as $piece) {
            $mark = $piece->mark === '#' ? null : $mark;
            if ($piece->hasKey(...$keys)) {
                $mark ??= $piece->mark; // the next piece takes its mark, so that the first one keeps the question mark

                continue;
            }
            $text .= $piece->behind($mark ?? $piece->mark);
            $mark = null;
        }

        return $text;
    }

    /** With one parameter as wanted: in the place of the first that there is, or behind all others. */
    public function with(string $key, string $value): string
    {
        $text = '';
        $stands = false;
        foreach ($this->pieces as $piece) {
            $isIt = $piece->hasKey($key);
            $text .= match (true) {
                ! $isIt => $piece->behind($piece->mark),
                $stands => '',
                default => "{$piece->mark}{$key}={$value}",
            };
            $stands = $stands || $isIt;
        }

        return match (true) {
            $stands => $text,
            $this->isQuery => ltrim(Query::join('?'.ltrim($text, '?&'), "{$key}={$value}"), '?'),
            default => Query::join($text, "{$key}={$value}"),
        };
    }

    /** With pairs put before all others of its query; null: it has none. */
    public function before(string $pairs): ?string
    {
        $text = '';
        $isIn = false;
        foreach ($this->pieces as $piece) {
            $text .=
                $piece->isParameter && ! $isIn
                    ? "{$piece->mark}{$pairs}&{$piece->text}"
                    : $piece->behind($piece->mark);
            $isIn = $isIn || $piece->isParameter;
        }

        return $isIn ? $text : null;
    }

    /** @return list<QueryPiece> */
    private static function cut(string $text, string $skeleton, bool $isQuery, bool $isUrl): array
    {
        $pieces = [];
        $mark = '';
        $inFragment = false;
        for ($at = 0; ; $at++) {
            $marks = match (true) {
                ! $isUrl => '?&#',
                $inFragment => '',
                $mark === '' => '?#',
                default => '&#',
            };
            $length = $marks === '' ? strlen($skeleton) - $at : strcspn($skeleton, $marks, $at);
            $inFragment = $inFragment || $mark === '#';
            $pieces[] = self::piece(
                $mark,
                $at,
                substr($text, $at, $length),
                substr($skeleton, $at, $length),
                ! $inFragment && ($mark !== '' || $isQuery),
            );
            $at += $length;
            if ($at >= strlen($skeleton)) {
                return $pieces;
            }
            $mark = $skeleton[$at];
            $inFragment = $inFragment || $mark === '#';
        }
    }

    private static function piece(
        string $mark,
        int $at,
        string $text,
        string $skeleton,
        bool $isParameter,
    ): QueryPiece {
        $equals = Query::before($skeleton, '=');
        [$key, $value] = [
            [substr($text, 0, $equals), substr($skeleton, 0, $equals)],
            [substr($text, $equals + 1), substr($skeleton, $equals + 1)],
        ];
        $hasValue = $equals < strlen($skeleton);

        return new QueryPiece(
            $mark,
            $at,
            $text,
            $isParameter,
            self::sent(...$key),
            ! str_contains($key[1], self::FILLED),
            $hasValue ? self::sent(...$value) : null,
            $at + ($hasValue ? $equals + 1 : 0),
            ! str_contains($value[1], self::FILLED),
        );
    }

    /** What is sent of a stretch of text. */
    private static function sent(string $text, string $skeleton): string
    {
        $sent = '';
        for ($at = 0; $at < strlen($text); $at += $length + strspn($skeleton, self::UNSENT, $at + $length)) {
            $length = strcspn($skeleton, self::UNSENT, $at);
            $sent .= substr($text, $at, $length);
        }

        return $sent;
    }
}
