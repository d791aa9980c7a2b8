<?php

namespace App\Connectors;

use Vestigon\Core\Document\Cursor;

/** A click as its platform remembers it. */
final readonly class KnownClick
{
    /** @param string $ad its id on the platform */
    public function __construct(
        public string $id,
        public string $ad,
        public string $keyword = '',
        public string $placement = '',
        public string $device = '',
    ) {}

    public static function read(Cursor $c): self
    {
        $text = static fn (string $key): string => $c->has($key) ? $c->at($key)->string() : '';

        return new self(
            $c->at('id')->text(),
            $c->at('ad')->text(),
            $text('keyword'),
            $text('placement'),
            $text('device'),
        );
    }
}
