<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** The click ID that the platform itself adds. */
final readonly class ClickId
{
    /** @param bool $always no account can switch it off */
    public function __construct(public string $parameter, public bool $always, public bool $default) {}

    public function isOn(?bool $setting): bool
    {
        return $this->always || ($setting ?? $this->default);
    }
}
