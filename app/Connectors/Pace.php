<?php

namespace App\Connectors;

use Illuminate\Support\Facades\RateLimiter;

/** Keeps all our workers together under a platform's limit of requests in a second. */
final readonly class Pace
{
    public function __construct(private string $platform, private int $perSecond) {}

    public function wait(): void
    {
        while (! RateLimiter::attempt("requests to {$this->platform}", $this->perSecond, static fn (): bool => true, 1)) {
            usleep(random_int(20_000, 60_000));
        }
    }
}
