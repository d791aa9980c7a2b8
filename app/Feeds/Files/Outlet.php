<?php

namespace App\Feeds\Files;

/** A file that is written in large stretches, whatever small ones it is told. */
final class Outlet
{
    private const STRETCH = 1 << 16;

    private string $waiting = '';

    /** @param \Closure(string): mixed $write takes a stretch */
    public function __construct(private readonly \Closure $write) {}

    public function tell(string $text): void
    {
        $this->waiting .= $text;
        if (strlen($this->waiting) >= self::STRETCH) {
            $this->end();
        }
    }

    /** Nothing waits any more. */
    public function end(): void
    {
        ($this->write)($this->waiting);
        $this->waiting = '';
    }
}
