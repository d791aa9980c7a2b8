<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** An element that a row names: its own, or one above it. */
final readonly class Step
{
    /**
     * @param string $id the platform's, or one made of its name and what is above it
     * @param bool $isByName is it known by its name alone?
     * @param string $name empty: not said
     */
    public function __construct(
        public string $level,
        public int $depth,
        public string $id,
        public bool $isByName,
        public string $name = '',
        public ?string $type = null,
    ) {}

    /** Tells it from all others of an account. */
    public function key(): string
    {
        return "{$this->level}\x1F{$this->id}";
    }
}
