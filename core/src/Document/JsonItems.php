<?php

declare(strict_types=1);

namespace Vestigon\Core\Document;

/**
 * The items of a JSON array, one at a time, whatever the array's length; a document that is no array is its only item.
 *
 * @implements \IteratorAggregate<int, Cursor>
 */
final class JsonItems implements \IteratorAggregate
{
    private string $buffer = '';

    private bool $ended = false;

    /** Did the document turn out to be an array? Known from the first item on. */
    public bool $isArray = false;

    /**
     * @var array<mixed> the other members of the object that holds the array: those before it from the first
     *     item on, all once the items have been gone through
     */
    public array $beside = [];

    /** @var \Iterator<mixed, string> */
    private readonly \Iterator $chunks;

    /** What stands before the member that is looked for, or behind it, must be no longer than this many bytes. */
    private const MOST_BESIDE = 1 << 20;

    /**
     * @param iterable<string> $chunks the document's text, cut anywhere
     * @param string|null $member of an object that holds the array; null: the document is the array
     */
    public function __construct(iterable $chunks, private readonly ?string $member = null)
    {
        $this->chunks = (static fn (): \Generator => (yield from $chunks))();
    }

    /** @param resource $stream */
    public static function ofStream($stream, ?string $member = null): self
    {
        return new self(
            (static function () use ($stream): \Generator {
                while (($chunk = fread($stream, 1 << 16)) !== false && $chunk !== '') {
                    yield $chunk;
                }
            })(),
            $member,
        );
    }

    /**
     * @return \Generator<int, Cursor>
     *
     * @throws UnusableInput at the place where the text stops being JSON
     */
    public function getIterator(): \Generator
    {
        $this->skipSpace();
        $this->skipToMember();
        if (! str_starts_with($this->buffer, '[')) {
            while ($this->more()) {
            }
            yield new Cursor(Cursor::json($this->buffer, 'standard input')->value);

            return;
        }
        $this->isArray = true;
        $this->buffer = substr($this->buffer, 1);
        $this->skipSpace();
        for ($i = 0; ! str_starts_with($this->buffer, ']'); $i++) {
            yield new Cursor(Cursor::json($this->item(), "[{$i}]")->value, "[{$i}]");
            $this->skipSpace();
            $next = $this->buffer[0] ?? '';
            if ($next !== ',' && $next !== ']') {
                throw UnusableInput::at(
                    "[{$i}]",
                    $next === ''
                        ? 'the text ends before the array does'
                        : "\",\" or \"]\" is wanted behind it, \"{$next}\" stands there",
                );
            }
            if ($next === ',') {
                $this->buffer = substr($this->buffer, 1);
                $this->skipSpace();
                if (str_starts_with($this->buffer, ']')) {
                    throw UnusableInput::at('['.($i + 1).']', 'an item is wanted behind the comma');
                }
            }
        }
        $this->buffer = substr($this->buffer, 1);
        $this->skipSpace();
        if ($this->member === null && $this->buffer !== '') {
            throw UnusableInput::at('document', 'there is text behind the end of the array');
        }
        if ($this->member !== null) {
            while (strlen($this->buffer) <= self::MOST_BESIDE && $this->more()) {
            }
            $this->know('{'.ltrim($this->buffer, ", \t\r\n"), "behind the list \"{$this->member}\"");
        }
    }

    /** @throws UnusableInput */
    private function know(string $object, string $where): void
    {
        $this->beside += (array) Cursor::json($object, $where)->value;
    }

    /** The text of the item that begins here: up to a comma or bracket on its own level. */
    private function item(): string
    {
        $depth = 0;
        $at = 0;
        while (true) {
            $at += strcspn($this->buffer, '"[]{},', $at);
            $mark = $this->buffer[$at] ?? '';
            if ($mark === '') {
                if (! $this->more()) {
                    break;
                }

                continue;
            }
            if ($mark === '"') {
                $at = $this->endOfString($at);

                continue;
            }
            if ($depth === 0 && ($mark === ',' || $mark === ']' || $mark === '}')) {
                break;
            }
            $depth += match ($mark) {
                '[', '{' => 1,
                ']', '}' => -1,
                default => 0,
            };
            $at++;
        }
        $item = substr($this->buffer, 0, $at);
        $this->buffer = substr($this->buffer, $at);

        return $item;
    }

    /** The offset behind the string that begins at an offset. */
    private function endOfString(int $at): int
    {
        $at++;
        while (true) {
            $at += strcspn($this->buffer, '"\\', $at);
            $mark = $this->buffer[$at] ?? '';
            if ($mark === '"') {
                return $at + 1;
            }
            if ($mark === '\\' && isset($this->buffer[$at + 1])) {
                $at += 2;
            } elseif (! $this->more()) {
                return strlen($this->buffer);
            }
        }
    }

    /** @throws UnusableInput there is no such array near the beginning */
    private function skipToMember(): void
    {
        if ($this->member === null) {
            return;
        }
        $pattern = '/'.preg_quote((string) json_encode($this->member), '/').'\s*:\s*(?=\[)/';
        while (preg_match($pattern, $this->buffer, $found, PREG_OFFSET_CAPTURE) !== 1) {
            if (strlen($this->buffer) > self::MOST_BESIDE || ! $this->more()) {
                throw UnusableInput::at('document', "no list \"{$this->member}\" is found in it");
            }
        }
        $before = rtrim(substr($this->buffer, 0, $found[0][1]), ", \t\r\n");
        $this->know("{$before}}", "before the list \"{$this->member}\"");
        $this->buffer = substr($this->buffer, $found[0][1] + strlen($found[0][0]));
    }

    private function skipSpace(): void
    {
        do {
            $this->buffer = ltrim($this->buffer, " \t\r\n");
        } while ($this->buffer === '' && $this->more());
    }

    private function more(): bool
    {
        if ($this->ended) {
            return false;
        }
        if (! $this->chunks->valid()) {
            $this->ended = true;

            return false;
        }
        $this->buffer .= $this->chunks->current();
        $this->chunks->next();

        return true;
    }
}
