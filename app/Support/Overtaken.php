<?php

namespace App\Support;

/** What is being worked on is not wanted any more: it was ended, or has been begun anew, meanwhile. */
final class Overtaken extends \Exception
{
    /** With which a process ends that shares such work. */
    public const EXIT = 3;
}
