<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Url\Encoding;

/** A stretch of a URL in the making: text, or a value that each click fills. */
final readonly class Piece
{
    /** What a value is in a skeleton: one harmless character, since it is encoded and not empty. */
    public const PLACE = 'x';

    public function __construct(public string|Value $content, public Origin $origin) {}

    public function encoded(int $times): self
    {
        return new self(
            is_string($this->content)
                ? Encoding::encode($this->content, $times)
                : $this->content->encoded($times),
            $this->origin,
        );
    }
}
