<?php

namespace App\Feeds\Files;

use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Feed\Form;

/**
 * XML in UTF-8: RSS 2.0, Atom (RFC 4287), or any element that is there again and again. It is known to be well-formed
 * (WellFormed); here it is cut where its items begin and end.
 */
final readonly class XmlFile implements ItemsFile
{
    private const READ = 1 << 18;

    /** @param string $item the name of the element that is an item */
    public function __construct(private string $path, public string $item) {}

    public function form(): Form
    {
        return Form::Xml;
    }

    public function ending(): string
    {
        return 'xml';
    }

    public function pieces(): iterable
    {
        $in = fopen($this->path, 'rb') ?: throw new \RuntimeException("{$this->path} can't be read");
        $name = preg_quote($this->item, '~');
        $marks = "~<!--|<!\\[CDATA\\[|<(?<close>/?){$name}(?=[\\s/>])(?:[^<>\"']|\"[^\"]*\"|'[^']*')*?(?<empty>/?)>~";
        $buffer = '';
        $at = $depth = 0;
        $begin = 0;
        try {
            while (true) {
                $plain = $depth === 0 && $at === $begin ? $this->plain($buffer, $begin) : null;
                if ($plain !== null) {
                    [$from, $at] = $plain;
                    if ($from > $begin) {
                        yield new Between(substr($buffer, $begin, $from - $begin));
                    }
                    yield new XmlPiece(substr($buffer, $from, $at - $from));
                    $begin = $at;
                    if ($at > self::READ) {
                        [$buffer, $at, $begin] = [substr($buffer, $at), 0, 0];
                    }

                    continue;
                }
                if (preg_match($marks, $buffer, $found, PREG_OFFSET_CAPTURE, $at) !== 1) {
                    $tail = strrpos($buffer, '<', $at);
                    $at = max($at, $tail === false ? strlen($buffer) : $tail);
                    if ($depth === 0 && $at > $begin) {
                        yield new Between(substr($buffer, $begin, $at - $begin));
                        [$buffer, $at, $begin] = [substr($buffer, $at), 0, 0];
                    }
                    if (! self::more($in, $buffer)) {
                        break;
                    }

                    continue;
                }
                [$mark, $from] = $found[0];
                $end = match ($mark) {
                    '<!--' => strpos($buffer, '-->', $from),
                    '<![CDATA[' => strpos($buffer, ']]>', $from),
                    default => $from + strlen($mark) - 3,
                };
                if ($end === false) {
                    if (! self::more($in, $buffer)) {
                        break;
                    }

                    continue;
                }
                $at = $end + 3;
                if ($mark[1] === '!') {
                    continue;
                }
                if ($depth === 0 && $from > $begin) {
                    yield new Between(substr($buffer, $begin, $from - $begin));
                    [$buffer, $at, $begin] = [substr($buffer, $from), $at - $from, 0];
                }
                $depth += match (true) {
                    ($found['close'][0] ?? '') === '/' => -1,
                    ($found['empty'][0] ?? '') === '/' => 0,
                    default => 1,
                };
                if ($depth === 0) {
                    yield new XmlPiece(substr($buffer, $begin, $at - $begin));
                    $begin = $at;
                    if ($at > self::READ) {
                        [$buffer, $at, $begin] = [substr($buffer, $at), 0, 0];
                    }
                }
            }
            if ($begin < strlen($buffer)) {
                yield new Between(substr($buffer, $begin));
            }
        } finally {
            fclose($in);
        }
    }

    /**
     * The next item, if nothing is between that could be taken for one, or be one within it.
     *
     * @return array{int, int}|null where it begins and ends
     */
    private function plain(string $buffer, int $at): ?array
    {
        $open = "<{$this->item}";
        $from = strpos($buffer, $open, $at);
        $to = $from === false ? false : strpos($buffer, "</{$this->item}>", $from);
        if ($from === false || $to === false || strpos(' >'."\t\r\n", $buffer[$from + strlen($open)]) === false) {
            return null;
        }
        $between = substr($buffer, $at, $to - $at);

        return str_contains($between, '<!') || substr_count($between, $open) > 1
            ? null
            : [$from, $to + strlen($this->item) + 3];
    }

    /** @param resource $in */
    private static function more($in, string &$buffer): bool
    {
        if (strlen($buffer) > 2 * self::LONGEST) {
            throw new UnusableInput('an item has more than '.(self::LONGEST >> 20).' MB');
        }
        $some = fread($in, self::READ);
        $buffer .= (string) $some;

        return $some !== false && $some !== '';
    }
}
