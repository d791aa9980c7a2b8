<?php

declare(strict_types=1);

namespace Vestigon\Core\Numbers;

/** Where elements are known. */
interface Lookup
{
    /**
     * @param list<string> $cells as they are understood, none twice
     * @return array<array-key, list<Named>> by cell, of those that anything is known by
     */
    public function of(By $by, array $cells): array;
}
