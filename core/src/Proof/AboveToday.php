<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

/** What stands above some ads today, and whether it is to say something else. */
final readonly class AboveToday
{
    /**
     * @param string $texts who of them says something, then and now: ads below with the same texts of their own are
     *     alike
     */
    public function __construct(public Above $above, public bool $moves, public string $texts) {}
}
