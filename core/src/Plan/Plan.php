<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** The agreement: what every click must carry, in neutral fields, for all platforms at once. */
final readonly class Plan
{
    /**
     * @param list<Parameter> $parameters in the order in which they are sent
     * @param array<string, string> $channels platform family → the channel that its clicks must be counted in
     */
    public function __construct(
        public string $id,
        public string $title,
        public bool $clickIdRequired,
        public array $parameters,
        public array $channels = [],
    ) {}

    /** The same plan with one parameter in another way. */
    public function with(Parameter $given): self
    {
        $parameters = array_map(
            static fn (Parameter $p): Parameter => $p->key === $given->key ? $given : $p,
            $this->parameters,
        );

        return new self($this->id, $this->title, $this->clickIdRequired, $parameters, $this->channels);
    }

    /** @return list<string> */
    public function keys(): array
    {
        return array_map(static fn (Parameter $p): string => $p->key, $this->parameters);
    }

    /** @return list<string> keys that carry nothing but the ad's number: by these an ad is found again */
    public function keysOfAds(): array
    {
        $ofAds = array_filter(
            $this->parameters,
            static fn (Parameter $p): bool => count($p->parts) === 1 && $p->parts[0]->field === 'ad.id',
        );

        return array_values(array_map(static fn (Parameter $p): string => $p->key, $ofAds));
    }
}
