<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Proof\Harm;

/** A key that an ad or campaign will not send as the plan says, and why. */
final readonly class Unmet
{
    /** @param string|null $symptom the code of the finding that the reason tells of; null: the reason is the cause */
    public function __construct(
        public string $node,
        public string $key,
        public string $reason,
        public ?string $symptom = null,
    ) {}

    /** Would something be lost that arrives today? Never a result, but what tells that a way is none. */
    public function isHarm(): bool
    {
        return $this->symptom === Harm::CODE;
    }

    public function because(string $cause): self
    {
        return new self($this->node, $this->key, $cause, $this->isHarm() ? $this->symptom : null);
    }
}
