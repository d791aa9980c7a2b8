<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Account\Path;

/** The agreement: what every click must carry, in neutral fields, for all platforms at once. */
final readonly class Plan
{
    /**
     * @param list<Parameter> $parameters in the order in which they are sent
     * @param array<string, string> $channels platform family → the channel that its clicks must be counted in
     * @param list<Variant> $variants what takes the place of the parameters for some; of several the first counts
     */
    public function __construct(
        public string $id,
        public string $title,
        public bool $clickIdRequired,
        public array $parameters,
        public array $channels = [],
        public array $variants = [],
    ) {}

    /** The same plan with one parameter in another way; in variants that parameter stays as it is. */
    public function with(Parameter $given): self
    {
        return $this->saying(
            array_map(
                static fn (Parameter $p): Parameter => $p->key === $given->key ? $given : $p,
                $this->parameters,
            ),
            $this->variants,
        );
    }

    /**
     * The same plan with each parameter, in variants too, as it is made.
     *
     * @param \Closure(Parameter): Parameter $made
     */
    public function each(\Closure $made): self
    {
        return $this->saying(
            array_map($made, $this->parameters),
            array_map(
                static fn (Variant $v): Variant => new Variant(
                    $v->id,
                    $v->title,
                    $v->platforms,
                    $v->types,
                    $v->where,
                    array_map($made, $v->parameters),
                ),
                $this->variants,
            ),
        );
    }

    /** What counts for an ad or another element. */
    public function lane(Path $path): Lane
    {
        return new Lane($path->campaignType(), $this->variantFor($path)->id ?? '');
    }

    /** The variant that counts for an ad or another element; null: the plan itself does. */
    public function variantFor(Path $path): ?Variant
    {
        foreach ($this->variants as $variant) {
            if ($variant->countsFor($path)) {
                return $variant;
            }
        }

        return null;
    }

    /** The plan as it is under one of its variants, a plan without variants; under none the plan itself. */
    public function in(string $variant): self
    {
        foreach ($this->variants as $one) {
            if ($one->id === $variant) {
                return $this->saying($one->parameters, []);
            }
        }

        return $this;
    }

    /** @return list<string> of the plan and all its variants */
    public function keys(): array
    {
        return array_values(array_unique(array_column($this->all(), 'key')));
    }

    /** @return list<Parameter> what the plan and its variants say of a key */
    public function of(string $key): array
    {
        return array_values(array_filter($this->all(), static fn (Parameter $p): bool => $p->key === $key));
    }

    /** Is a key required of every click, whichever variant counts? */
    public function requires(string $key): bool
    {
        $required = array_filter($this->of($key), static fn (Parameter $p): bool => $p->required);

        return count($required) === 1 + count($this->variants);
    }

    /** @return list<Parameter> */
    private function all(): array
    {
        return array_merge($this->parameters, ...array_column($this->variants, 'parameters'));
    }

    /**
     * @param list<Parameter> $parameters
     * @param list<Variant> $variants
     */
    private function saying(array $parameters, array $variants): self
    {
        return new self(
            $this->id,
            $this->title,
            $this->clickIdRequired,
            $parameters,
            $this->channels,
            $variants,
        );
    }

    /** @return list<string> keys that carry nothing but the ad's number, in variants too: by these ads are found */
    public function keysOfAds(): array
    {
        $says = static fn (Parameter $p): bool => count($p->parts) === 1 && $p->parts[0]->field === 'ad.id';

        return array_values(
            array_filter(
                $this->keys(),
                fn (string $key): bool => array_filter($this->of($key), $says) === $this->of($key),
            ),
        );
    }
}
