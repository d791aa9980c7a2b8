<?php

namespace App\Accounts;

/** A newer proof of the same account has begun. */
final class Superseded extends \Exception
{
    /** With which a process ends that shares such a proof. */
    public const EXIT = 3;
}
