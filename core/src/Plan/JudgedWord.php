<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** A word as a list of words sees it. */
final readonly class JudgedWord
{
    /** @param string|null $use the word to use in its place, where one can be told */
    public function __construct(public WordStanding $standing, public ?string $use = null) {}
}
