<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Account;

/** An account as it is today, to hold against it what would become of it. */
final readonly class Today
{
    /** @param bool $keepsKeys a plan key that arrives today stays as it is */
    public function __construct(public Account $account, public bool $keepsKeys = false) {}
}
