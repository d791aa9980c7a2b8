<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\CoversClass;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Watch\Line;

#[CoversClass(Line::class)]
final class LineTest extends TestCase
{
    private static function line(int $seed): Line
    {
        $line = new Line([]);
        $counts = ['sessions', 'newVisitors', 'onePage', 'views', 'conversions', 'impressions', 'clicks'];
        foreach ($counts as $i => $count) {
            $line->{$count} = $seed * 10 + $i;
        }
        $line->revenue = ['EUR' => $seed * 100];
        $line->net = ['EUR' => -$seed];

        return $line;
    }

    public function test_a_line_without_a_part_and_the_part_come_to_the_line(): void
    {
        $part = self::line(3);
        $all = self::line(7);
        $all->addAll($part);
        Line::add($all->revenue, 'JPY', 900);

        $rest = $all->without($part);

        self::assertSame(self::line(7)->views, $rest->views);
        self::assertSame(['EUR' => 700, 'JPY' => 900], $rest->revenue); // money of each currency on its own
        self::assertSame(['EUR' => -7], $rest->net);
        $rest->addAll($part);
        self::assertEquals($all, $rest);
    }

    public function test_of_a_line_without_all_of_it_nothing_is_left_and_its_currencies_still_stand(): void
    {
        $rest = self::line(4)->without(self::line(4));

        self::assertSame([0, 0, 0], [$rest->sessions, $rest->views, $rest->conversions]);
        self::assertSame(['EUR' => 0], $rest->revenue);
        self::assertSame([], $rest->cost);
    }
}
