<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** How a product list is read, and what is done to its links. */
final readonly class Feed
{
    /**
     * @param string|null $itemPath where items stand in XML: names of elements from the outside in, with `/` between
     * @param string $id the column that tells items apart
     * @param array<string, LinkKind> $links column → is a listing by it paid for
     * @param '.'|',' $decimal the mark in numbers between whole and parts
     * @param list<Rule> $rules in their order
     */
    public function __construct(
        public string $title,
        public Form $form,
        public ?string $itemPath,
        public string $id,
        public array $links,
        public string $decimal,
        public array $rules,
    ) {}
}
