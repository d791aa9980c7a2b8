<?php

declare(strict_types=1);

namespace Vestigon\Core\Naming;

/** A name read by a pattern. */
final readonly class Reading
{
    /**
     * @param array<string, string> $values part → text, as far as they could be told apart
     * @param list<Trouble> $trouble empty: the name keeps the pattern
     */
    public function __construct(public array $values, public array $trouble) {}
}
