<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

/** Something that has arrived and is not as it should be. */
final readonly class Fault
{
    /**
     * @param string $name what channel rules call the key, `source`; of what is in no channel: `channel`
     * @param string $value that has arrived
     * @param int $sessions that it has arrived with
     * @param string $reason a sentence for people
     */
    public function __construct(
        public string $code,
        public string $name,
        public string $value,
        public int $sessions,
        public string $reason,
    ) {}
}
