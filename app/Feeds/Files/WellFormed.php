<?php

namespace App\Feeds\Files;

use Vestigon\Core\Document\UnusableInput;

/** Reads XML as PHP's own reader does, with nothing from outside, and says what is an item in it. */
final class WellFormed
{
    private const DEPTH = 64;

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
            if (! $reader->open($path, null, LIBXML_NONET | LIBXML_COMPACT | LIBXML_PARSEHUGE)) {
                throw new UnusableInput('the list can’t be opened as XML');
            }
            $times = self::times($reader);
            $error = libxml_get_last_error();
            if ($error !== false && $error->level >= LIBXML_ERR_ERROR) {
                throw new UnusableInput("line {$error->line} is not well-formed: ".trim($error->message));
            }
        } finally {
            $reader->close();
            libxml_clear_errors();
            libxml_use_internal_errors($before);
        }
        foreach (self::USUAL as $name) {
            if (isset($times[$name])) {
                return $name;
            }
        }
        arsort($times);

        return (string) (array_key_first($times) ?? throw new UnusableInput('the list has no items'));
    }

    /** @return array<string, int> how often elements are there that have elements in them; not the outermost */
    private static function times(\XMLReader $reader): array
    {
        $times = [];
        $open = [];
        while (@$reader->read()) {
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
