<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** A way that was tried, and what came of it. */
final readonly class Tried
{
    public function __construct(public Way $way, public Compiled $found) {}

    public function orBetter(self $other): self
    {
        return $other->rank() < $this->rank() ? $other : $this;
    }

    /** @return array{int, int, bool, int} the smaller, the better */
    public function rank(): array
    {
        return [...$this->found->lack(), $this->way->isLandingUrls(), count($this->found->writes)];
    }
}
