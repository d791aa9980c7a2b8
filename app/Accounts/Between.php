<?php

namespace App\Accounts;

/** Some of an account's elements: those whose number in the database is above one and up to another. */
final readonly class Between
{
    public function __construct(public int $above = 0, public int $upTo = PHP_INT_MAX) {}
}
