<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

final readonly class Policy
{
    public function __construct(public Existing $existing = Existing::Replace, public Carrier $carrier = Carrier::Fewest) {}
}
