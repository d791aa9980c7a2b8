<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Vestigon\Core\Watch\Claim;

/** What platforms claim, in parts that add up. */
final class ClaimTest extends TestCase
{
    public function test_what_is_known_here_is_taken_from_the_claim_and_the_rest_was_never_seen(): void
    {
        $claim = Claim::of(10, 4, ['E-mail' => 1, 'Direct' => 2], 1, 0, 1);
        self::assertSame([1, null], [$claim->unseen, $claim->surplus]);
    }

    public function test_more_than_is_claimed_is_said(): void
    {
        $claim = Claim::of(3, 5);
        self::assertSame([0, 2], [$claim->unseen, $claim->surplus]);
    }

    public function test_parts_always_add_up(): void
    {
        $random = new Randomizer(new Mt19937(14));
        for ($i = 0; $i < 2000; $i++) {
            $size = static fn (): int => $random->getInt(0, 40);
            [$claimed, $a, $b, $c, $d, $e, $f] = array_map($size, range(0, 6));
            $told = Claim::of($claimed * 3, $a, ['x' => $b, 'y' => $c], $d, $e, $f)->toArray();
            $parts = $told['counted'] + array_sum((array) $told['elsewhere']) + $told['outside'] + $told['repeated']
                + $told['takenBack'] + $told['unseen'];
            self::assertSame($told['claimed'], $parts - (int) $told['surplus']);
        }
    }
}
