<?php

namespace App\Changes;

/** What is told of a change, or of a piece of one: what is told of its pieces can be joined. */
final readonly class ToldStory
{
    public const SAMPLES_PER_TYPE = 2;

    public const EXAMPLES = 3;

    private const GROUPS = 20;

    /**
     * @param array{before: array<string, int>, after: array<string, int>} $states of its ads
     * @param array<string, array<string, array<string, mixed>>> $samples by campaign type and what was wrong
     * @param array<string, array{key: string, reason: string, count: int, examples: list<string>}> $unmet
     * @param array<string, array{key: string, reason: string, count: int, examples: list<string>}> $kept
     * @param int $overridden narrower texts among the writes
     * @param int $customs writes to custom parameters
     * @param int $names writes to names
     * @param int $reviewed elements that the platform looks at again
     * @param list<array{setting: string, before: string, after: string}> $switches
     */
    public function __construct(
        public array $states,
        public array $samples,
        public array $unmet,
        public array $kept,
        public int $overridden,
        public int $writes,
        public int $customs,
        public int $names,
        public int $reviewed,
        public array $switches,
    ) {}

    public function and(self $other): self
    {
        $states = $this->states;
        foreach ($other->states as $when => $counts) {
            foreach ($counts as $state => $ads) {
                $states[$when][$state] += $ads;
            }
        }
        $samples = $this->samples;
        foreach ($other->samples as $type => $some) {
            $samples[$type] = array_slice(($samples[$type] ?? []) + $some, 0, self::SAMPLES_PER_TYPE);
        }

        return new self(
            $states,
            $samples,
            self::both($this->unmet, $other->unmet),
            self::both($this->kept, $other->kept),
            $this->overridden + $other->overridden,
            $this->writes + $other->writes,
            $this->customs + $other->customs,
            $this->names + $other->names,
            $this->reviewed + $other->reviewed,
            [...$this->switches, ...$other->switches],
        );
    }

    /** @return array<string, mixed> as it is kept with the change */
    public function toArray(bool $namesFreeze): array
    {
        return [
            'ads' => array_sum($this->states['before']),
            'states' => $this->states,
            'writes' => $this->writes,
            'customs' => $this->customs,
            'names' => $this->names,
            'namesFreeze' => $namesFreeze,
            'switches' => $this->switches,
            'samples' => array_merge(...array_map('array_values', array_values($this->samples))),
            'unmet' => self::most($this->unmet),
            'kept' => self::most($this->kept),
            'overridden' => $this->overridden,
            'reviewed' => $this->reviewed,
        ];
    }

    /**
     * @param array<string, array{key: string, reason: string, count: int, examples: list<string>}> $some
     * @param array<string, array{key: string, reason: string, count: int, examples: list<string>}> $others
     * @return array<string, array{key: string, reason: string, count: int, examples: list<string>}>
     */
    private static function both(array $some, array $others): array
    {
        foreach ($others as $what => $group) {
            $has = $some[$what] ?? ['count' => 0, 'examples' => []];
            $some[$what] = [
                'key' => $group['key'],
                'reason' => $group['reason'],
                'count' => $has['count'] + $group['count'],
                'examples' => array_slice(
                    array_values(array_unique([...$has['examples'], ...$group['examples']])),
                    0,
                    self::EXAMPLES,
                ),
            ];
        }

        return $some;
    }

    /**
     * @param array<string, array{key: string, reason: string, count: int, examples: list<string>}> $groups
     * @return list<array{key: string, reason: string, count: int, examples: list<string>}>
     */
    private static function most(array $groups): array
    {
        usort($groups, static fn (array $a, array $b): int => $b['count'] <=> $a['count']);

        return array_slice($groups, 0, self::GROUPS);
    }
}
