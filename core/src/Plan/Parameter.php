<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Dialect\Dialect;

/** One key of the plan and what it must carry. */
final readonly class Parameter
{
    /**
     * @param list<Part> $parts
     * @param list<list<Part>> $fallback taken in order where a platform can't give a field
     * @param list<string>|null $families platform families it applies to; null: all
     * @param array<string, list<Part>|null> $platforms by dialect id: other parts, or null to leave the key out
     * @param Vocabulary $vocabulary the values that are allowed; empty: any
     */
    public function __construct(
        public string $key,
        public array $parts,
        public Shape $shape = Shape::AsIs,
        public bool $required = false,
        public array $fallback = [],
        public ?array $families = null,
        public array $platforms = [],
        public Vocabulary $vocabulary = new Vocabulary(),
    ) {}

    /** The same, its values from a list of words. */
    public function among(Vocabulary $words): self
    {
        return $this->with(vocabulary: $words);
    }

    /** The same in another shape. */
    public function shaped(Shape $shape): self
    {
        return $this->with(shape: $shape);
    }

    /**
     * The same, with other parts on a platform.
     *
     * @param list<Part>|null $parts null leaves the key out there
     */
    public function on(string $dialect, ?array $parts): self
    {
        return $this->with(platforms: [...$this->platforms, $dialect => $parts]);
    }

    /** @return list<Cell> all that may be sent, on any platform */
    public function cells(): array
    {
        $cells = [new Cell($this->key, $this->parts)];
        foreach ($this->fallback as $i => $parts) {
            $cells[] = new Cell($this->key, $parts, $i);
        }
        foreach (array_filter($this->platforms) as $platform => $parts) {
            $cells[] = new Cell($this->key, $parts, platform: (string) $platform);
        }

        return $cells;
    }

    /** @return list<list<Part>> what to send on a platform, best first; empty: the key does not apply there */
    public function choices(Dialect $dialect): array
    {
        if ($this->families !== null && ! in_array($dialect->family, $this->families, true)) {
            return [];
        }
        $parts = array_key_exists($dialect->id, $this->platforms) ? $this->platforms[$dialect->id] : $this->parts;

        return $parts === null ? [] : [$parts, ...$this->fallback];
    }

    /** @param array<string, list<Part>|null>|null $platforms */
    private function with(?Shape $shape = null, ?array $platforms = null, ?Vocabulary $vocabulary = null): self
    {
        return new self(
            $this->key,
            $this->parts,
            $shape ?? $this->shape,
            $this->required,
            $this->fallback,
            $this->families,
            $platforms ?? $this->platforms,
            $vocabulary ?? $this->vocabulary,
        );
    }
}
