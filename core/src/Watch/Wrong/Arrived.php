<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** What has arrived from an account's ads over some days, or from what no ad is known to have sent. */
final readonly class Arrived
{
    /**
     * @param bool $isOfAds are the ads known?
     * @param array<string, array<string, int>> $values what channel rules call a key, `source` → value → sessions
     * @param array<string, int> $unmapped `source / medium` → sessions that no channel rule takes
     * @param array<string, int> $new sources that had not arrived before → sessions
     * @param array<string, string> $numbers values that are the number of an element → its name
     * @param array<string, string> $former values by which an element was called before → its name now
     * @param array<string, int> $doubled keys that arrive more than once, `source,medium` → sessions
     * @param array<string, int> $lost own hosts that visitors came from as strangers → sessions
     */
    public function __construct(
        public bool $isOfAds,
        public array $values,
        public array $unmapped = [],
        public array $new = [],
        public array $numbers = [],
        public array $former = [],
        public array $doubled = [],
        public array $lost = [],
    ) {}

    /** @return iterable<array{string, string, int}> the key as channel rules call it, a value that is not empty, sessions */
    public function each(): iterable
    {
        foreach ($this->values as $name => $values) {
            foreach ($values as $value => $sessions) {
                if ((string) $value !== '') {
                    yield [$name, (string) $value, $sessions];
                }
            }
        }
    }
}
