<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

/** Something that is wrong with one click. */
final readonly class Flaw
{
    /**
     * @param bool $breaks the agreement is broken; else it is only worth knowing
     * @param string|null $key the parameter; null: the whole click
     * @param string|null $expected what should have arrived
     * @param list<string> $arrived what came
     */
    public function __construct(
        public string $code,
        public Severity $severity,
        public bool $breaks,
        public string $reason,
        public ?string $key = null,
        public ?string $expected = null,
        public array $arrived = [],
    ) {}

    public function finding(): Finding
    {
        return new Finding($this->code, $this->severity, $this->reason, key: $this->key);
    }
}
