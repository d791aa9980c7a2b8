<?php

namespace App\Support;

/** A command of ours for a process of its own, and what it is told. */
final readonly class Command
{
    public function __construct(public string $line, public string $told = '') {}
}
