<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

final readonly class AutoTags
{
    /** @param list<AutoTag> $tags */
    public function __construct(public AutoTagMode $default, public array $tags) {}
}
