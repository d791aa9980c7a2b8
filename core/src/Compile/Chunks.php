<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Template\Part\Literal;
use Vestigon\Core\Template\Template;
use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Query;

/** A slot's text cut into the pieces of its query, tokens whole. Put together again it is the same text. */
final readonly class Chunks
{
    /** Redirects inside redirects are looked into this deep. */
    private const DEEPEST = 3;

    /** @param list<array{string, string}> $list the mark before a piece, and the piece; the first piece has no mark */
    private function __construct(private array $list) {}

    public static function of(Template $template): self
    {
        return new self(self::cut($template));
    }

    /**
     * @param list<string> $keys
     * @param bool $fromStart the first piece is a pair too (a suffix); else it is the address before the query
     */
    public function without(array $keys, bool $fromStart): string
    {
        $list = self::kept($this->list, static fn (string $piece): bool => $piece !== '' && in_array(self::key($piece), $keys, true), $fromStart);
        $text = self::text($list);

        return $fromStart ? $text : self::withoutEncoded($text, $keys);
    }

    /** With one parameter as wanted: in the place of the first that there is, or behind all others. */
    public function with(string $key, string $value, bool $fromStart): string
    {
        $list = [];
        $stands = false;
        $isPair = static fn (string $piece): bool => $piece !== '' && self::key($piece) === $key;
        foreach ($this->list as $i => [$mark, $piece]) {
            $here = ($i > 0 || $fromStart) && ! in_array('#', array_column($list, 0), true) && $mark !== '#' && $isPair($piece);
            if (! $here || ! $stands) {
                $list[] = [$mark, $here ? "{$key}={$value}" : $piece];
            }
            $stands = $stands || $here;
        }
        $text = self::text($list);

        return match (true) {
            $stands => $text,
            $fromStart => ltrim(Query::join('?'.ltrim($text, '?&'), "{$key}={$value}"), '?'),
            default => Query::join($text, "{$key}={$value}"),
        };
    }

    /** With pairs put before all others of its query; null: it has none. */
    public function before(string $pairs, bool $fromStart): ?string
    {
        $at = $fromStart ? 0 : 1;
        [$mark, $piece] = $this->list[$at] ?? ['#', ''];

        return $mark === '#' ? null : self::text([...array_slice($this->list, 0, $at), [$mark, $pairs], ['&', $piece], ...array_slice($this->list, $at + 1)]);
    }

    /** @return list<string> the keys that its pieces have */
    public function keys(): array
    {
        $keys = [];
        foreach ($this->list as [, $piece]) {
            if (str_contains($piece, '=')) {
                $keys[] = Query::decoded(substr($piece, 0, strcspn($piece, '=')));
            }
        }

        return $keys;
    }

    /** A piece without `=` is a key too, with nothing in it (WHATWG urlencoded parser). */
    private static function key(string $piece): string
    {
        return Query::decoded(substr($piece, 0, strcspn($piece, '=')));
    }

    /**
     * Takes pairs out of an encoded destination: `to={landing}%26key%3Dvalue`; and out of one inside that, encoded once more.
     *
     * @param list<string> $keys
     */
    private static function withoutEncoded(string $text, array $keys): string
    {
        $ends = '&';
        for ($times = 1; $times <= self::DEEPEST; $times++) {
            [$and, $mark, $equals] = array_map(static fn (string $c): string => Encoding::encode($c, $times), ['&', '?', '=']);
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

    /** @return list<array{string, string}> */
    private static function cut(Template $template): array
    {
        $list = [];
        $mark = '';
        $piece = '';
        foreach ($template->parts as $part) {
            if (! $part instanceof Literal) {
                $piece .= new Template([$part]);

                continue;
            }
            preg_match_all('~([?&#]?)([^?&#]*)~', $part->source, $found, PREG_SET_ORDER);
            foreach ($found as [, $next, $text]) {
                if ($next !== '') {
                    $list[] = [$mark, $piece];
                    [$mark, $piece] = [$next, ''];
                }
                $piece .= $text;
            }
        }
        $list[] = [$mark, $piece];

        return $list;
    }

    /**
     * @param list<array{string, string}> $list
     * @param \Closure(string): bool $drop
     * @return list<array{string, string}>
     */
    private static function kept(array $list, \Closure $drop, bool $fromStart): array
    {
        $kept = [];
        $mark = null;
        $inFragment = false;
        foreach ($list as $i => [$own, $piece]) {
            if ($own === '#') {
                $inFragment = true; // what stands there is no parameter
                $mark = null;
            }
            if (($i > 0 || $fromStart) && ! $inFragment && $drop($piece)) {
                $mark ??= $own; // the next piece takes its mark, so that the first one keeps the question mark

                continue;
            }
            $kept[] = [$mark ?? $own, $piece];
            $mark = null;
        }

        return $kept;
    }

    /** @param list<array{string, string}> $list */
    private static function text(array $list): string
    {
        return implode('', array_map(static fn (array $c): string => $c[0].$c[1], $list));
    }
}
