<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Watch\Attribution;
use Vestigon\Core\Watch\Bought;
use Vestigon\Core\Watch\Item;

/** What of a conversion is each item's. Sums that add up are common practice, no source. */
final class BoughtTest extends TestCase
{
    /**
     * @param list<Bought> $bought
     * @return list<array{string, int, int, int}>
     */
    private static function told(array $bought): array
    {
        return array_map(
            static fn (Bought $b): array => [$b->item, $b->part, $b->value, $b->net],
            $bought,
        );
    }

    public function test_an_order_of_two_items_with_postage_of_which_half_was_taken_back(): void
    {
        $items = [new Item('cabin', 'A cabin', 1, 6000), new Item('meal', null, 2, 3000)];
        self::assertSame(
            [['cabin', 500_000, 6000, 3000], ['meal', 500_000, 3000, 1500], ['', 0, 1000, 500]],
            self::told(Bought::of($items, 0, 1, 1_000_000, 10_000, 5000)),
        );
    }

    public function test_an_item_that_stands_twice_is_one_and_a_discount_is_of_no_item(): void
    {
        $items = [new Item('meal', null, 1, 1500), new Item('meal', null, 1, 1500)];
        self::assertSame(
            [['meal', 1_000_000, 3000, 3000], ['', 0, -500, -500]],
            self::told(Bought::of($items, 0, 1, 1_000_000, 2500, 0)),
        );
    }

    public function test_without_items_all_is_of_none_and_without_a_value_items_have_none(): void
    {
        self::assertSame([['', 7, 40, 30]], self::told(Bought::of([], 0, 1, 7, 40, 10)));
        self::assertSame(
            [['meal', 1_000_000, 0, 0]],
            self::told(Bought::of([new Item('meal', null, 1, 1500)], 0, 1, 1_000_000, null, 0)),
        );
    }

    public function test_items_and_the_rest_add_up_to_each_share_and_an_item_s_shares_to_the_item(): void
    {
        mt_srand(11);
        for ($i = 0; $i < 500; $i++) {
            $items = [];
            for ($n = mt_rand(0, 4); $n > 0; $n--) {
                $items[] = new Item('i'.mt_rand(1, 4), null, 1, mt_rand(-100, 9_000_000));
            }
            $whole = mt_rand(0, 3) === 0 ? array_sum(array_column($items, 'value')) : mt_rand(-500, 20_000_000);
            $of = mt_rand(1, 5);
            $isAll = mt_rand(0, 2) === 0;
            $back = $isAll ? $whole : mt_rand(0, 1000);
            $parts = Attribution::split(1_000_000, $of);
            $values = Attribution::split($whole, $of);
            $backs = Attribution::split($back, $of);
            $sums = [];
            for ($n = 0; $n < $of; $n++) {
                $bought = Bought::of($items, $n, $of, $parts[$n], $values[$n], $backs[$n]);
                self::assertSame($parts[$n], array_sum(array_column($bought, 'part')));
                self::assertSame($values[$n], array_sum(array_column($bought, 'value')));
                self::assertSame($values[$n] - $backs[$n], array_sum(array_column($bought, 'net')));
                foreach ($bought as $b) {
                    $sums[$b->item] = ($sums[$b->item] ?? 0) + $b->value;
                    self::assertTrue(! $isAll || $values[$n] === 0 || $b->net === 0, 'all was taken back');
                }
            }
            foreach ($items as $item) {
                $all = array_filter($items, static fn (Item $other): bool => $other->id === $item->id);
                self::assertSame(array_sum(array_column($all, 'value')), $sums[$item->id]);
            }
        }
    }
}
