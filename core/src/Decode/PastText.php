<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Watch\Instant;

/** A text that stood, or stands, in one place for some time. */
final readonly class PastText
{
    /**
     * @param string $node its key
     * @param SlotKind|null $slot null: a custom parameter
     * @param string|null $custom its name
     * @param int|null $since milliseconds; null: ever since
     * @param int|null $until the first instant at which it stood there no more; null: it still does
     */
    private function __construct(
        public string $node,
        public ?SlotKind $slot,
        public ?string $custom,
        public string $text,
        public ?int $since,
        public ?int $until,
    ) {}

    /** @throws UnusableInput */
    public static function read(Cursor $c): self
    {
        if ($c->has('slot') === $c->has('custom')) {
            $c->fail('either "slot" or "custom" is wanted');
        }

        return new self(
            $c->at('node')->text(),
            $c->has('slot') ? $c->at('slot')->enum(SlotKind::class) : null,
            $c->has('custom') ? $c->at('custom')->string() : null,
            $c->at('text')->string(),
            self::instant($c, 'since'),
            self::instant($c, 'until'),
        );
    }

    public function stoodAt(int $at): bool
    {
        return ($this->since ?? PHP_INT_MIN) <= $at && $at < ($this->until ?? PHP_INT_MAX);
    }

    /** The node with it in its place. */
    public function in(Node $node): Node
    {
        return $this->slot === null
            ? $node->withCustom((string) $this->custom, $this->text)
            : $node->withSlot($this->slot, $this->text);
    }

    /** The node with nothing in its place. */
    public function outOf(Node $node): Node
    {
        return $this->slot === null
            ? $node->withCustom((string) $this->custom, null)
            : $node->withSlot($this->slot, null);
    }

    private static function instant(Cursor $c, string $key): ?int
    {
        return $c->has($key)
            ? Instant::read($c->at($key)->string())
                ?? $c->at($key)->fail('an instant with its offset is wanted, like 2026-10-05T09:00:00.000Z')
            : null;
    }
}
