<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** A place in a plan where it is said what a key says. */
final readonly class Cell
{
    /**
     * @param list<Part> $parts
     * @param int|null $fallback which of those that are fallen back on, from 0
     * @param string|null $platform on this platform only, by its id
     */
    public function __construct(
        public string $key,
        public array $parts,
        public ?int $fallback = null,
        public ?string $platform = null,
    ) {}

    /** What it says where that is fixed text; null: it holds a field. */
    public function word(): ?string
    {
        $word = '';
        foreach ($this->parts as $part) {
            if ($part->field !== null) {
                return null;
            }
            $word .= $part->text;
        }

        return $word;
    }
}
