<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Url\Encoding;

/** A stretch of a URL in the making: text, or a value that each click fills. */
final readonly class Piece
{
    public function __construct(public string|Value $content, public Origin $origin) {}

    /** As far as the structure of a URL goes: a value is one harmless character, since it is encoded and not empty. */
    public function skeleton(): string
    {
        return is_string($this->content) ? $this->content : 'x';
    }

    public function encoded(int $times): self
    {
        if ($times === 0) {
            return $this;
        }

        return new self(is_string($this->content) ? Encoding::encode($this->content, $times) : $this->content->encoded($times), $this->origin);
    }
}
