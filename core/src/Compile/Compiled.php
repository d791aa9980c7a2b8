<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** What to write so that every click tells the truth, and what can't be had. */
final readonly class Compiled
{
    /**
     * @param list<Write> $writes in the order to apply
     * @param list<Unmet> $unmet
     * @param list<Unmet> $kept plan keys that stay as they are, with the text that has them
     * @param list<Write> $overridden texts on narrower levels that are rewritten or cleared; each is one of the writes
     */
    public function __construct(public array $writes, public array $unmet, public array $kept, public array $overridden) {}
}
