<?php

declare(strict_types=1);

namespace Vestigon\Core\Channel;

/** The channel that a click is counted in, and why. */
final readonly class Counted
{
    /** @param int|null $rule which rule took it, from 0; null: none did */
    public function __construct(public string $channel, public ?int $rule, public string $why) {}
}
