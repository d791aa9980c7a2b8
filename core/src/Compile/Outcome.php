<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** What a node gets; the same for all that are alike. */
final readonly class Outcome
{
    /**
     * @param array<string, string|null> $texts by slot kind, where they change; null clears
     * @param list<LeftOut> $unmet
     */
    public function __construct(public array $texts, public array $unmet) {}

    public function isNothing(): bool
    {
        return $this->texts === [] && $this->unmet === [];
    }
}
