<?php

namespace App\Feeds\Files;

use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Feed\Form;

/** What kind of product list a file is, told by its first bytes; and one that is no UTF-8 made so. */
final class Opening
{
    private const START = 1 << 12;

    private const MARKS = ["\xFF\xFE" => 'UTF-16LE', "\xFE\xFF" => 'UTF-16BE'];

    /**
     * Unpacks a file and writes it in UTF-8.
     *
     * @param string $from as it came
     * @param string $to where it is to be
     *
     * @throws UnusableInput it is larger than a list may be, or no text
     */
    public static function plain(string $from, string $to): void
    {
        $start = (string) file_get_contents($from, length: self::START);
        $packed = str_starts_with($start, "\x1F\x8B") ? inflate_init(ZLIB_ENCODING_GZIP) : null; // RFC 1952
        $in = fopen($from, 'rb') ?: throw new \RuntimeException("{$from} can't be read");
        $out = fopen($to, 'wb') ?: throw new \RuntimeException("{$to} can't be written");
        $bytes = 0;
        while (! feof($in)) {
            $some = (string) fread($in, 1 << 16);
            $some = $packed === null || $packed === false ? $some : @inflate_add($packed, $some);
            $bytes += strlen((string) $some);
            if ($some === false || $bytes > config('limits.feed_bytes')) {
                throw new UnusableInput(
                    $some === false
                        ? 'the list can’t be unpacked'
                        : 'the list is larger than '.(config('limits.feed_bytes') >> 20).' MB',
                );
            }
            fwrite($out, $some);
        }
        if ($packed instanceof \InflateContext && inflate_get_status($packed) !== ZLIB_STREAM_END) {
            throw new UnusableInput('the list is packed, and not whole');
        }
        fclose($in);
        fclose($out);
        self::inUtf8($to);
    }

    /** @throws UnusableInput it can't be told what it is */
    public static function of(string $path, ?Form $form = null, ?string $item = null): ItemsFile
    {
        $start = (string) file_get_contents($path, length: self::START);
        $first = ltrim(str_starts_with($start, "\xEF\xBB\xBF") ? substr($start, 3) : $start)[0] ?? '';
        $form ??= match ($first) {
            '' => throw new UnusableInput('the list is empty'),
            '<' => Form::Xml,
            '{' => Form::Ndjson,
            default => Form::Delimited,
        };

        return match ($form) {
            Form::Xml => new XmlFile($path, $item ?? WellFormed::item($path)),
            Form::Ndjson => new LinesFile($path),
            Form::Delimited => new TextFile($path),
        };
    }

    private static function inUtf8(string $path): void
    {
        $start = (string) file_get_contents($path, length: self::START);
        $encoding = self::MARKS[substr($start, 0, 2)] ?? null;
        $named = preg_match('~^\s*<\?xml[^>]*\sencoding=["\']([\w.-]+)["\']~', $start, $found) === 1 ? $found[1] : null;
        if ($encoding === null && $named !== null && strcasecmp($named, 'UTF-8') !== 0) {
            $encoding = @iconv($named, 'UTF-8', 'a') === false
                ? throw new UnusableInput("the list says that it is in {$named}, which is not known")
                : $named;
        }
        if ($encoding === null && str_contains($start, "\0")) {
            throw new UnusableInput('the list is no text');
        }
        if ($encoding === null && ! self::isUtf8($path)) {
            if ($named !== null || ltrim($start)[0] === '<') {
                throw new UnusableInput('the list says that it is in UTF-8, and is not');
            }
            $encoding = 'Windows-1252';
        }
        if ($encoding === null) {
            return;
        }
        $in = fopen($path, 'rb') ?: throw new \RuntimeException("{$path} can't be read");
        $out = fopen("{$path}.utf8", 'wb') ?: throw new \RuntimeException("{$path}.utf8 can't be written");
        fseek($in, isset(self::MARKS[substr($start, 0, 2)]) ? 2 : 0);
        stream_filter_append($in, "convert.iconv.{$encoding}.UTF-8", STREAM_FILTER_READ);
        $first = true;
        while (! feof($in)) {
            $some = @fread($in, 1 << 18);
            if ($some === false) {
                throw new UnusableInput("the list is not in {$encoding}");
            }
            if ($first) {
                $some = preg_replace('~^(\s*<\?xml[^>]*\sencoding=["\'])[\w.-]+~', '$1UTF-8', $some, 1);
            }
            $first = false;
            fwrite($out, (string) $some);
        }
        fclose($in);
        fclose($out);
        rename("{$path}.utf8", $path);
    }

    private static function isUtf8(string $path): bool
    {
        $in = fopen($path, 'rb') ?: throw new \RuntimeException("{$path} can't be read");
        try {
            while (($line = fgets($in, 1 << 20)) !== false) {
                // a line that is cut may be cut within a letter: that one belongs to the next piece
                $isCut = ! str_ends_with($line, "\n") && ! feof($in);
                $whole = $isCut ? (string) preg_replace('~[\x80-\xFF]{1,4}$~', '', $line) : $line;
                if (! mb_check_encoding($whole, 'UTF-8')) {
                    return false;
                }
                fseek($in, strlen($whole) - strlen($line), SEEK_CUR);
            }
        } finally {
            fclose($in);
        }

        return true;
    }
}
