<?php

declare(strict_types=1);

namespace Vestigon\Core\Dialect;

/** One slot of a platform: where it may be set, and which campaign types read it. */
final readonly class Slot
{
    /**
     * @param list<string> $levels level ids, widest first
     * @param list<string> $ignoredFor campaign types that do not read it at all
     * @param array<string, list<string>> $levelsFor campaign type → the only levels it reads
     * @param bool $narrowestWins gather only: a piece is dropped if a narrower level has the same text before its `=`
     * @param bool $tokens landing only: the platform fills tokens in it
     * @param bool $needsLanding template only: the platform refuses a text without a landing token
     * @param bool $reviewed the platform looks at an ad again when its text changes
     */
    public function __construct(
        public SlotKind $kind,
        public array $levels,
        public Inherit $inherit,
        public array $ignoredFor,
        public array $levelsFor,
        public bool $narrowestWins,
        public bool $tokens,
        public bool $needsLanding,
        public ?int $maxLength,
        public bool $reviewed = false,
    ) {}

    /** @param list<string> $levels the same slot, at these levels only */
    public function at(array $levels): self
    {
        return new self(
            $this->kind,
            $levels,
            $this->inherit,
            $this->ignoredFor,
            $this->levelsFor,
            $this->narrowestWins,
            $this->tokens,
            $this->needsLanding,
            $this->maxLength,
            $this->reviewed,
        );
    }

    /** Does the slot count at this level for a campaign of this type? */
    public function countsAt(string $level, ?string $campaignType): bool
    {
        if (! in_array($level, $this->levels, true)) {
            return false;
        }
        if ($campaignType === null) {
            return true;
        }

        return ! in_array($campaignType, $this->ignoredFor, true)
            && in_array($level, $this->levelsFor[$campaignType] ?? $this->levels, true);
    }
}
