<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Account\Path;

/** An ad as it and all above it stood for some time. There may be a million: a path is made when it is asked for. */
final readonly class Version
{
    /**
     * @param string $ad its key
     * @param int|null $since milliseconds; null: nobody knows since when
     * @param int|null $until the first instant at which it stood so no more; null: it still does
     */
    public function __construct(private History $history, public string $ad, public ?int $since, public ?int $until) {}

    public function stoodAt(int $at): bool
    {
        return ($this->since ?? PHP_INT_MIN) <= $at && $at < ($this->until ?? PHP_INT_MAX);
    }

    public function path(): Path
    {
        return $this->history->path($this->ad, $this->since ?? ($this->until === null ? 0 : $this->until - 1));
    }

    /** @return array<string, string> what the platform knew of the ad, by field */
    public function facts(): array
    {
        $path = $this->path();

        return $path->fields($path->dialect->namesFreeze);
    }

    /** One of those, of a field that the ad itself has; null: it has none such. */
    public function ownFact(string $field): ?string
    {
        return $this->history->ownFact($this->ad, $field);
    }
}
