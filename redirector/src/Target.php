<?php

declare(strict_types=1);

namespace Vestigon\Redirector;

/** Where a short address leads. */
final readonly class Target
{
    /**
     * @param int|null $ends from when on it leads nowhere, in seconds since 1970
     * @param int $seen when the database said so
     */
    public function __construct(
        public int $link,
        public string $url,
        public bool $forwards,
        public ?int $ends,
        public bool $isGone,
        public int $seen,
    ) {}
}
