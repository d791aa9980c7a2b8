<?php

/*
 * What the framework uses of four packages that the registry does not have: see "replace" in composer.json.
 * Four functions of PHP 8.5, and the system clock that the date library falls back on.
 */

namespace {
    if (! function_exists('array_first')) {
        function array_first(array $array): mixed
        {
            return $array === [] ? null : $array[array_key_first($array)];
        }
    }

    if (! function_exists('array_last')) {
        function array_last(array $array): mixed
        {
            return $array === [] ? null : $array[array_key_last($array)];
        }
    }

    if (! function_exists('get_exception_handler')) {
        function get_exception_handler(): ?callable
        {
            $handler = set_exception_handler(null);
            restore_exception_handler();

            return $handler;
        }
    }

    if (! function_exists('get_error_handler')) {
        function get_error_handler(): ?callable
        {
            $handler = set_error_handler(null);
            restore_error_handler();

            return $handler;
        }
    }
}

namespace Symfony\Component\Clock {
    interface ClockInterface extends \Psr\Clock\ClockInterface
    {
        public function sleep(float|int $seconds): void;

        public function withTimeZone(\DateTimeZone|string $timezone): static;
    }

    final class NativeClock implements ClockInterface
    {
        public function __construct(private \DateTimeZone|string|null $timezone = null) {}

        public function now(): \DateTimeImmutable
        {
            $zone = $this->timezone ?? date_default_timezone_get();

            return new \DateTimeImmutable('now', is_string($zone) ? new \DateTimeZone($zone) : $zone);
        }

        public function sleep(float|int $seconds): void
        {
            usleep((int) ($seconds * 1_000_000));
        }

        public function withTimeZone(\DateTimeZone|string $timezone): static
        {
            return new self($timezone);
        }
    }
}
