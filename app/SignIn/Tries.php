<?php

namespace App\SignIn;

use Illuminate\Cache\RateLimiter;
use Illuminate\Http\Exceptions\ThrottleRequestsException;

/** Counts tries before they are made, so that many at once don't slip through; those that were right are given back. */
final readonly class Tries
{
    public function __construct(private RateLimiter $limiter) {}

    /**
     * @param array<string, string> $of which limit of config/limits.php → for whom
     *
     * @throws ThrottleRequestsException there have been too many
     */
    public function count(array $of): void
    {
        foreach ($of as $limit => $whom) {
            [$most, $minutes] = config("limits.{$limit}");
            $key = self::key($limit, $whom);
            if ($this->limiter->hit($key, $minutes * 60) > $most) {
                throw new ThrottleRequestsException('Too many tries.', null, [
                    'Retry-After' => (string) max(1, $this->limiter->availableIn($key)),
                ]);
            }
        }
    }

    /** @param array<string, string> $of */
    public function giveBack(array $of): void
    {
        foreach ($of as $limit => $whom) {
            str_ends_with($limit, '_account')
                ? $this->limiter->clear(self::key($limit, $whom))
                : $this->limiter->decrement(self::key($limit, $whom));
        }
    }

    private static function key(string $limit, string $whom): string
    {
        return "{$limit} ".hash('sha256', $whom);
    }
}
