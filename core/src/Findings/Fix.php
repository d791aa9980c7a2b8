<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

/** What would mend a finding: the whole text of its slot or custom parameter as it would be. */
final readonly class Fix
{
    /**
     * @param string $says what is done, in a few words
     * @param string|null $text null clears
     */
    public function __construct(public string $says, public ?string $text) {}
}
