<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

use Vestigon\Core\Dialect\SlotKind;

/** The text of a slot that counts for an ad. */
final readonly class SlotText
{
    /**
     * @param non-empty-array<int, Node> $owners offset in the text → the node that the text from there on comes from
     */
    public function __construct(public SlotKind $kind, public string $text, private array $owners) {}

    public function ownerAt(int $offset): Node
    {
        if (count($this->owners) === 1) {
            return $this->owners[0];
        }
        $owner = $this->owners[array_key_first($this->owners)];
        foreach ($this->owners as $from => $node) {
            if ($from > $offset) {
                break;
            }
            $owner = $node;
        }

        return $owner;
    }

    /**
     * An offset of the whole, as an offset in the text of the node it comes from. Exact where one node gives it all.
     */
    public function within(int $offset): int
    {
        $begin = 0;
        foreach ($this->owners as $from => $node) {
            if ($from <= $offset && $node === $this->ownerAt($offset)) {
                $begin = $from;
                break;
            }
        }

        return $offset - $begin;
    }
}
