<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** A small give in the plan that saves much. */
final readonly class Advice
{
    /**
     * @param int $now how many writes it takes as the plan is
     * @param int $then how many it would take
     * @param list<string> $nodes that would not have to be written to
     */
    public function __construct(
        public string $key,
        public Give $give,
        public int $now,
        public int $then,
        public array $nodes,
    ) {}

    /** @return array<string, mixed> as in `vestigon.writes/1` */
    public function toArray(): array
    {
        return [
            'key' => $this->key,
            'give' => $this->give->value,
            'writes' => ['now' => $this->now, 'then' => $this->then],
            'nodes' => $this->nodes,
        ];
    }
}
