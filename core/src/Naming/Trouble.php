<?php

declare(strict_types=1);

namespace Vestigon\Core\Naming;

/** What is wrong with a name, and where. */
final readonly class Trouble
{
    /**
     * @param string|null $part null: no part of the pattern
     * @param int|null $at where in the name, in bytes; null where there is no name yet
     */
    public function __construct(public ?string $part, public ?int $at, public int $length, public string $why) {}
}
