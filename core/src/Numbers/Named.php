<?php

declare(strict_types=1);

namespace Vestigon\Core\Numbers;

/** An element as a report may speak of it. */
final readonly class Named
{
    /**
     * @param int $id ours
     * @param string $kind its account and level
     * @param string $number the platform's
     * @param string $name as it is called today
     * @param list<int> $above ids of what it stands under
     * @param string $path names of what it stands under, widest first
     * @param string|null $formerly the name by which it was found, where it is called otherwise by now
     */
    public function __construct(
        public int $id,
        public string $kind,
        public string $number,
        public string $name,
        public array $above = [],
        public string $path = '',
        public ?string $formerly = null,
        public bool $isGone = false,
        public bool $isAd = false,
    ) {}

    /** @param string $name by which it was found */
    public function called(string $name): self
    {
        return new self(
            $this->id,
            $this->kind,
            $this->number,
            $this->name,
            $this->above,
            $this->path,
            $name,
            $this->isGone,
            $this->isAd,
        );
    }

    /** Can a row be about both: is one of them the other, or above it? */
    public function isOnOnePathWith(self $other): bool
    {
        return $this->id === $other->id
            || in_array($this->id, $other->above, true)
            || in_array($other->id, $this->above, true);
    }

    public function depth(): int
    {
        return count($this->above);
    }
}
