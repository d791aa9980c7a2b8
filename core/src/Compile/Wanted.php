<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** The texts that should count at a node, and what there was no room for. */
final readonly class Wanted
{
    /**
     * @param array<string, string> $texts by slot kind; a slot that is not listed has nothing to say here
     * @param list<array{string, string, string}> $leftOut slot kind, plan key and reason
     * @param list<string> $fields the fields whose values are written out in the texts
     */
    public function __construct(public array $texts, public array $leftOut, public array $fields) {}
}
