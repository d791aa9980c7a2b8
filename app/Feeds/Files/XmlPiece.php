<?php

namespace App\Feeds\Files;

use Vestigon\Core\Url\Query;

/**
 * An element of XML that is an item. Its columns are the elements in it, and their attributes as `link@href`, its own
 * as `@id`; those in turn within them are none.
 */
final class XmlPiece implements Piece
{
    private const TOKEN =
        '~<!--.*?-->|<!\[CDATA\[(?<cdata>.*?)\]\]>'
        .'|<(?<close>/?)(?<name>[^\s<>/=!?]+)(?<pairs>(?:\s(?:[^<>"\']|"[^"]*"|\'[^\']*\')*?)?)(?<empty>/?)>~s';

    private const PLAIN = '~\G\s*<([^\s<>/=!?]+)>([^<]*)</\1\s*>~';

    private const PAIR = '~([^\s=]+)\s*=\s*(?:"([^"]*)"|\'([^\']*)\')~';

    private const AS = PREG_SET_ORDER | PREG_OFFSET_CAPTURE | PREG_UNMATCHED_AS_NULL;

    /** @var array<string, string>|false|null element → what stands in it; false: it is otherwise; null: not looked at */
    private array|false|null $plain = null;

    public function __construct(private readonly string $text) {}

    public function raw(): string
    {
        return $this->text;
    }

    public function cells(): array
    {
        $plain = $this->plain();
        if ($plain === null) {
            return array_map(
                static fn (array $spot): string => $spot[2] ? $spot[3] : self::decoded($spot[3]),
                $this->spots(),
            );
        }
        $isTight = ! str_contains($this->text, ' <')
            && ! str_contains($this->text, '> ')
            && ! str_contains($this->text, "\n")
            && ! str_contains($this->text, "\t");
        $cells = $isTight ? $plain : array_map(trim(...), $plain);

        return str_contains($this->text, '&') ? array_map(self::decoded(...), $cells) : $cells;
    }

    public function with(array $links): string
    {
        if ($this->plain() !== null) {
            return $this->plainWith($links, $this->plain());
        }
        $spots = array_intersect_key($this->spots(), $links);
        uasort($spots, static fn (array $a, array $b): int => $b[0] <=> $a[0]); // from behind
        $text = $this->text;
        foreach ($spots as $column => [$at, $length, $isCdata]) {
            $link = $isCdata && ! str_contains($links[$column], ']]>')
                ? $links[$column]
                : self::encoded($links[$column]);
            $text = substr_replace($text, $link, $at, $length);
        }

        return $text;
    }

    /**
     * Most items are elements with nothing in them but text, one after the other, each once.
     *
     * @return array<string, string>|null element → what stands in it; null: this one is otherwise
     */
    private function plain(): ?array
    {
        return ($this->plain ??= $this->readPlainly() ?? false) ?: null;
    }

    /** @return array<string, string>|null */
    private function readPlainly(): ?array
    {
        $begin = strpos($this->text, '>');
        if ($begin === false || Query::before($this->text, '=') < $begin || str_contains($this->text, '<!')) {
            return null;
        }
        preg_match_all(self::PLAIN, $this->text, $found, PREG_PATTERN_ORDER, $begin + 1);
        $end = $begin + 1 + strlen(implode('', $found[0]));
        $values = array_combine($found[1], $found[2]);

        return preg_match('~\G\s*</[^<>]+>$~', $this->text, $none, 0, $end) === 1 && count($values) === count($found[1])
            ? $values
            : null;
    }

    /**
     * @param array<string, string> $links
     * @param array<string, string> $plain
     */
    private function plainWith(array $links, array $plain): string
    {
        $text = $this->text;
        foreach ($links as $column => $link) {
            $begin = (int) strpos($text, "<{$column}>") + strlen($column) + 2;
            $begin += strspn($text, " \t\r\n", $begin);
            $text = substr_replace($text, self::encoded($link), $begin, strlen(trim($plain[$column])));
        }

        return $text;
    }

    /** @return array<string, array{int, int, bool, string}> column → where its value is, if as CDATA, and the value */
    private function spots(): array
    {
        preg_match_all(self::TOKEN, $this->text, $tokens, self::AS);
        $spots = [];
        $depth = 0;
        $name = '';
        $from = 0;
        $cdata = null;
        foreach ($tokens as $token) {
            if ($token['name'][0] === null) {
                $cdata ??= $depth === 2 && $token['cdata'][0] !== null ? $token['cdata'] : null;

                continue;
            }
            [$whole, $at] = $token[0];
            if ($token['close'][0] === '/') {
                if ($depth-- === 2 && ! isset($spots[$name])) {
                    $value = substr($this->text, $from, $at - $from);
                    $spots[$name] = match (true) {
                        $cdata !== null => [$cdata[1], strlen($cdata[0]), true, $cdata[0]],
                        default => [$from + strspn($value, " \t\r\n"), strlen(trim($value)), false, trim($value)],
                    };
                }

                continue;
            }
            if ($depth === 0) {
                $spots += self::pairs('', (string) $token['pairs'][0], (int) $token['pairs'][1]);
            }
            if ($depth === 1) {
                $name = (string) $token['name'][0];
                $spots += self::pairs($name, (string) $token['pairs'][0], (int) $token['pairs'][1]);
                $from = $at + strlen((string) $whole);
                $cdata = null;
            }
            $depth += $token['empty'][0] === '/' ? 0 : 1;
        }

        return $spots;
    }

    /** @return array<string, array{int, int, bool, string}> */
    private static function pairs(string $name, string $text, int $at): array
    {
        $spots = [];
        if (str_contains($text, '=')) {
            preg_match_all(self::PAIR, $text, $pairs, self::AS);
            foreach ($pairs as $pair) {
                [$value, $begin] = $pair[2][0] !== null ? $pair[2] : $pair[3];
                $spots["{$name}@{$pair[1][0]}"] = [$at + $begin, strlen((string) $value), false, (string) $value];
            }
        }

        return $spots;
    }

    private static function encoded(string $link): string
    {
        return str_replace(['&', '<', '>', '"', "'"], ['&amp;', '&lt;', '&gt;', '&quot;', '&apos;'], $link);
    }

    private static function decoded(string $text): string
    {
        return str_contains($text, '&') ? html_entity_decode($text, ENT_XML1 | ENT_QUOTES, 'UTF-8') : $text;
    }
}
