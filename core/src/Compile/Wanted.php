<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** The texts that should count at a node. */
final readonly class Wanted
{
    /**
     * @param array<string, Fitted> $texts by slot kind; a slot that is not listed has nothing to say here
     * @param list<string> $fields the fields whose values are written out in the texts
     */
    public function __construct(public array $texts, public array $fields) {}
}
