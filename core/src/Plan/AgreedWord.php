<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

/** A word that people have agreed on for a key. */
final readonly class AgreedWord
{
    /**
     * @param string $means in one line; may be empty
     * @param string|null $retiredSince the day from which on it is not used any more (YYYY-MM-DD); null: it is in use
     * @param string|null $use what takes its place
     */
    public function __construct(
        public string $word,
        public string $means = '',
        public ?string $retiredSince = null,
        public ?string $use = null,
    ) {}

    public function isRetiredOn(?string $day): bool
    {
        return $this->retiredSince !== null && ($day === null || $this->retiredSince <= $day);
    }
}
