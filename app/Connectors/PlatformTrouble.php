<?php

namespace App\Connectors;

/** A platform does not answer as it should. The message is for the person at the screen. */
final class PlatformTrouble extends \RuntimeException
{
    /**
     * @param bool $mayPass trying again later can help
     * @param float|null $wait seconds that the platform wants us to wait
     * @param bool $isSignedOut the token is not good, or not any more
     */
    private function __construct(
        string $message,
        public readonly bool $mayPass,
        public readonly ?float $wait = null,
        public readonly bool $isSignedOut = false,
    ) {
        parent::__construct($message);
    }

    public static function down(string $title, int $status): self
    {
        return new self(
            "{$title} is down (it answered {$status}). Nothing was lost; try again in a while.",
            true,
        );
    }

    public static function busy(string $title, float $wait): self
    {
        return new self(
            "{$title} takes no more requests for {$wait} seconds. Nothing was lost; try again then.",
            true,
            $wait,
        );
    }

    public static function silent(string $title, float $seconds): self
    {
        return new self(
            "{$title} did not answer within {$seconds} seconds. Nothing was lost; try again in a while.",
            true,
        );
    }

    public static function nonsense(string $title, string $what): self
    {
        return new self(
            "{$title} answered something that makes no sense ({$what}). Nothing was taken over; try again, and tell "
                ."{$title} if it stays so.",
            true,
        );
    }

    public static function refused(string $title, string $why, bool $isSignedOut = false): self
    {
        return new self("{$title} refused the request: {$why}.", false, isSignedOut: $isSignedOut);
    }

    public static function barred(string $title, string $why): self
    {
        return new self("{$title} was not asked: its address {$why}.", false);
    }

    public static function notAsked(string $title): self
    {
        return new self("{$title} comes by sheet; it can't be asked anything. Bring its next export.", false);
    }

    public static function unknown(string $dialect): self
    {
        return new self("There is no connector for {$dialect}.", false);
    }
}
