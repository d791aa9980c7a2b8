<?php

namespace App\Feeds\Files;

use Vestigon\Core\Document\UnusableInput;

/** Reads XML as PHP's own reader does, with nothing from outside, and says what is an item in it. */
final class WellFormed
{
    private const DEPTH = 64;

    private const READ = 1 << 16;

    private const FIRST_LINE = '~^(?:\xEF\xBB\xBF)?\s*<\?xml[^>]*\?>~';

    /** What feeds call their items (RSS 2.0; Atom, RFC 4287), if they are there. */
    private const USUAL = ['item', 'entry'];

    /**
     * @return string the name of the element that is an item
     *
     * @throws UnusableInput it is not well-formed, has a DTD, or goes too deep
     */
    public static function item(string $path): string
    {
        $reader = new \XMLReader();
        $before = libxml_use_internal_errors(true);
        libxml_clear_errors();
        try {
            if (! $reader->open($path, null, LIBXML_NONET | LIBXML_COMPACT)) {
                throw new UnusableInput('the list can’t be opened as XML');
            }
            $times = self::times($reader);
            $usual = self::usual($times);
            if ($usual !== null && ! self::parses($path)) {
                while (@$reader->next($usual)) {
                    continue; // what stands in items is looked at by the library alone
                }
            }
            $error = libxml_get_last_error();
            if ($error !== false && $error->level >= LIBXML_ERR_ERROR) {
                throw new UnusableInput("line {$error->line} is not well-formed: ".trim($error->message));
            }
        } finally {
            $reader->close();
            libxml_clear_errors();
            libxml_use_internal_errors($before);
        }
        arsort($times);

        return $usual ?? (string) (array_key_first($times) ?? throw new UnusableInput('the list has no items'));
    }

    /**
     * Most lists have nothing but elements and text behind their first line: those are parsed without making nodes,
     * which takes half the time.
     *
     * @return bool false: it has more, or is not well-formed, which the reader says in its own words
     */
    private static function parses(string $path): bool
    {
        $parser = xml_parser_create_ns('UTF-8');
        $in = fopen($path, 'rb') ?: throw new \RuntimeException("{$path} can't be read");
        $open = 0;
        for ($isFirst = true; ! feof($in); $isFirst = false) {
            $some = (string) fread($in, self::READ);
            $some .= str_ends_with($some, '<') ? (string) fgetc($in) : '';
            $at = $isFirst && preg_match(self::FIRST_LINE, $some, $found) === 1 ? strlen($found[0]) : 0;
            // without comments and sections `<` stands nowhere but before a name or `/` (XML 1.0, §2.4)
            $open += substr_count($some, '<', $at) - 2 * substr_count($some, '</', $at);
            $open -= str_contains($some, '/>') ? (int) preg_match_all('~<[^<>"\']*/>~', $some) : 0;
            $isMore = preg_match('~<[!?]~', $some, $none, 0, $at) === 1;
            if ($isMore || $open > self::DEPTH || xml_parse($parser, $some, feof($in)) !== 1) {
                return false;
            }
        }

        return true;
    }

    /** @param array<string, int> $times */
    private static function usual(array $times): ?string
    {
        return array_values(array_intersect(self::USUAL, array_keys($times)))[0] ?? null;
    }

    /**
     * @return array<string, int> how often elements are there that have elements in them, not the outermost; up to the
     *     first that has a usual name
     */
    private static function times(\XMLReader $reader): array
    {
        $times = [];
        $open = [];
        while (self::usual($times) === null && @$reader->read()) {
            if ($reader->nodeType === \XMLReader::DOC_TYPE) {
                throw new UnusableInput('the list has a document type (DTD), which is not read. Leave it out');
            }
            if ($reader->nodeType !== \XMLReader::ELEMENT) {
                continue;
            }
            $depth = $reader->depth;
            if ($depth > self::DEPTH) {
                throw new UnusableInput('the list’s elements stand more than '.self::DEPTH.' deep in each other');
            }
            $open[$depth] = [$reader->name, false];
            if ($depth > 1 && ! $open[$depth - 1][1]) {
                $open[$depth - 1][1] = true;
                $times[$open[$depth - 1][0]] = ($times[$open[$depth - 1][0]] ?? 0) + 1;
            }
        }

        return $times;
    }
}
