<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Account\Path;

/** An ad as it and all above it stood for some time. */
final readonly class Version
{
    /**
     * @param string $ad its key
     * @param int|null $since milliseconds; null: nobody knows since when
     * @param int|null $until the first instant at which it stood so no more; null: it still does
     */
    public function __construct(public string $ad, public Path $path, public ?int $since, public ?int $until) {}

    public function stoodAt(int $at): bool
    {
        return ($this->since ?? PHP_INT_MIN) <= $at && $at < ($this->until ?? PHP_INT_MAX);
    }

    /** @return array<string, string> what the platform knew of the ad, by field */
    public function facts(): array
    {
        return $this->path->fields($this->path->dialect->namesFreeze);
    }
}
