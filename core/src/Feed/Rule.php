<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** What is done to the links of the items for which all of its tests hold. */
final readonly class Rule
{
    /**
     * @param list<CellTest> $tests
     * @param list<string>|null $links the columns of the links that it is about; null: all
     * @param list<Step> $steps
     * @param bool $isLast no rule after it takes an item that it has taken
     */
    public function __construct(
        public string $title,
        public array $tests,
        public ?array $links,
        public array $steps,
        public bool $isLast,
    ) {}

    /** @param array<string, string> $item as it came */
    public function takes(array $item): bool
    {
        foreach ($this->tests as $test) {
            if (! $test->holds($item[$test->column] ?? '')) {
                return false;
            }
        }

        return true;
    }
}
