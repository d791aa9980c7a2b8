<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** One level of a platform's account tree. */
final readonly class Level
{
    /** @param int $depth 0 is the account, the widest */
    public function __construct(public string $id, public string $label, public Role $role, public int $depth) {}
}
