<?php

namespace Tests\Feature;

use App\Changes\ToldStory;
use PHPUnit\Framework\TestCase;

/** What is told of a change's pieces, joined. */
final class ToldStoryTest extends TestCase
{
    /**
     * @param array<string, array<string, array<string, mixed>>> $samples
     * @param array<string, array{key: string, reason: string, count: int, examples: list<string>}> $unmet
     */
    private static function told(int $proven, array $samples = [], array $unmet = [], int $writes = 0): ToldStory
    {
        return new ToldStory(
            ['before' => ['proven' => 0, 'broken' => $proven], 'after' => ['proven' => $proven, 'broken' => 0]],
            $samples,
            $unmet,
            [],
            1,
            $writes,
            2,
            3,
            4,
            [],
        );
    }

    /** @return array{key: string, reason: string, count: int, examples: list<string>} */
    private static function group(string $reason, int $count, string ...$examples): array
    {
        return ['key' => 'utm_term', 'reason' => $reason, 'count' => $count, 'examples' => array_values($examples)];
    }

    public function test_counts_are_added_up(): void
    {
        $story = self::told(3, writes: 10)->and(self::told(4, writes: 20))->toArray(namesFreeze: true);

        self::assertSame(7, $story['ads']);
        self::assertSame(['proven' => 7, 'broken' => 0], $story['states']['after']);
        self::assertSame(
            [30, 2, 4, 6, 8, true],
            [
                $story['writes'],
                $story['overridden'],
                $story['customs'],
                $story['names'],
                $story['reviewed'],
                $story['namesFreeze'],
            ],
        );
    }

    public function test_of_each_type_two_samples_are_shown_no_two_for_one_reason(): void
    {
        $story = self::told(1, ['text' => ['missing' => ['node' => 1]]])
            ->and(self::told(1, ['text' => ['missing' => ['node' => 2], 'wrong' => ['node' => 3]]]))
            ->and(self::told(1, ['text' => ['twice' => ['node' => 4]], 'video' => ['missing' => ['node' => 5]]]))
            ->toArray(namesFreeze: false);

        self::assertSame([1, 3, 5], array_column($story['samples'], 'node'));
    }

    public function test_what_is_unmet_for_one_reason_is_one_group_the_commonest_first_with_three_examples(): void
    {
        $first = ['a' => self::group('no token', 2, 'Deck', 'Cabin'), 'b' => self::group('off', 4)];
        $story = self::told(1, unmet: $first)
            ->and(self::told(1, unmet: ['a' => self::group('no token', 3, 'Deck', 'Film', 'Late')]))
            ->toArray(namesFreeze: false);

        self::assertSame(
            [self::group('no token', 5, 'Deck', 'Cabin', 'Film'), self::group('off', 4)],
            $story['unmet'],
        );
    }

    public function test_twenty_groups_are_told_at_most(): void
    {
        $groups = [];
        foreach (range(1, 30) as $i) {
            $groups[] = self::group("reason {$i}", $i);
        }
        $told = self::told(1, unmet: $groups)->toArray(namesFreeze: false)['unmet'];

        self::assertSame(range(30, 11), array_column($told, 'count'));
    }
}
