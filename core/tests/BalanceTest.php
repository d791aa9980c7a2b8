<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Watch\Balance;

/** Where clicks have gone. The steps' order is the watching page's; the sums are held against each other. */
final class BalanceTest extends TestCase
{
    public function test_each_loss_takes_at_most_what_is_left_in_the_page_s_order(): void
    {
        $all = Balance::of(100, 60, ['E-mail' => 5, 'Direct' => 3], 4, 2, 9, 10, 8, 5, 20);
        self::assertSame(
            [100, 60, 4, 2, 9, null],
            [$all->clicks, $all->arrived, $all->empty, $all->raw, $all->repeats, $all->surplus],
        );
        self::assertSame(
            [10, 8, 5, 3, 0],
            [$all->broken, $all->untracked, $all->tracker, $all->withheld, $all->rest],
        );
    }

    public function test_more_than_was_paid_for_is_not_split(): void
    {
        $more = Balance::of(10, 9, ['Direct' => 3], broken: 5);
        self::assertSame([2, 0, 0, null], [$more->surplus, $more->broken, $more->rest, $more->tracker]);
        self::assertFalse($more->isMarked());
    }

    public function test_what_nobody_counts_is_not_known_and_the_rest_beyond_the_usual_is_marked(): void
    {
        $of = Balance::of(100, 84);
        self::assertSame([null, null, 16, true], [$of->tracker, $of->withheld, $of->rest, $of->isMarked()]);
        self::assertFalse(Balance::of(100, 85)->isMarked());
        self::assertFalse(Balance::of(0, 0)->isMarked());
    }

    public function test_the_parts_of_random_balances_add_up_to_the_clicks_and_none_is_below_nothing(): void
    {
        mt_srand(20261127);
        for ($i = 0; $i < 3000; $i++) {
            $n = static fn (): int => mt_rand(0, 40);
            $maybe = static fn (): ?int => mt_rand(0, 2) === 0 ? null : mt_rand(0, 40);
            $b = Balance::of(
                $n() * 3,
                $n(),
                ['a' => $n(), 'b' => $n()],
                $n(),
                $n(),
                $n(),
                $n(),
                $n(),
                $maybe(),
                $maybe(),
            );
            $parts = [$b->broken, $b->untracked, $b->tracker ?? 0, $b->withheld ?? 0, $b->rest];
            self::assertGreaterThanOrEqual(0, min($parts));
            self::assertSame(
                $b->clicks,
                $b->arrived +
                    array_sum($b->elsewhere) +
                    $b->empty +
                    $b->raw -
                    ($b->surplus ?? 0) +
                    array_sum($parts),
            );
            self::assertTrue($b->surplus === null || array_sum($parts) === 0);
        }
    }
}
