<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** What has become of an item. */
final readonly class Outcome
{
    /**
     * @param array<string, string> $links column → link, of those that are links
     * @param list<int> $rules those that have taken it
     * @param list<Problem> $problems in the order in which they are told
     */
    public function __construct(
        public string $id,
        public array $links,
        public array $rules,
        public array $problems,
    ) {}
}
