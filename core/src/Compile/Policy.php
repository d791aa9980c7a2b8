<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

final readonly class Policy
{
    /**
     * @param list<string>|null $within the nodes that may be written to, with all below them; null: the whole account
     */
    public function __construct(
        public Existing $existing = Existing::Replace,
        public Carrier $carrier = Carrier::Fewest,
        public ?array $within = null,
        public Switches $switches = Switches::May,
    ) {}

    /** @param list<string> $within */
    public function on(array $within): self
    {
        return new self($this->existing, $this->carrier, $within, $this->switches);
    }

    public function switching(Switches $switches): self
    {
        return new self($this->existing, $this->carrier, $this->within, $switches);
    }
}
