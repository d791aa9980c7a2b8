<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** May what an account has switched for all of its ads be switched otherwise? */
enum Switches: string
{
    case May = 'may';
    /** It stays as it is. */
    case Leave = 'leave';
}
