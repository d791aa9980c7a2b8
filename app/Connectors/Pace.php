<?php

namespace App\Connectors;

use Illuminate\Support\Facades\RateLimiter;

/** Keeps all our workers together under a platform's limit of requests in a second, for reading or for writing. */
final readonly class Pace
{
    public function __construct(private string $what, private int $perSecond) {}

    public function wait(): void
    {
        while (! RateLimiter::attempt($this->what, $this->perSecond, static fn (): bool => true, 1)) {
            usleep(random_int(20_000, 60_000));
        }
    }
}
