<?php

namespace App\Events;

use Illuminate\Foundation\Events\Dispatchable;

/** A worker lives: it has come a step further in what it does. */
final class WorkWentOn
{
    use Dispatchable;
}
