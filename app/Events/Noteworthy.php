<?php

namespace App\Events;

use Illuminate\Foundation\Events\Dispatchable;

/** Something that the audit keeps: a way in or out, a role, a rule. */
final readonly class Noteworthy
{
    use Dispatchable;

    /** @param array<string, mixed> $about never a secret */
    public function __construct(
        public string $what,
        public ?int $user,
        public ?int $client = null,
        public array $about = [],
    ) {}
}
