<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Compile\Progress;
use Vestigon\Core\Compile\Proven;
use Vestigon\Core\Compile\Proving;
use Vestigon\Core\Compile\Scope;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Proof\Today;

final class ProgressTest extends TestCase
{
    public function test_a_compilation_tells_every_step_and_each_ad_in_it(): void
    {
        $told = [];
        $progress = new Progress(static function (string $step, int $done) use (&$told): void {
            $told[$step] = $done;
        }, every: 1);
        Compiler::compile(
            Make::account([
                ['c1', 'acc', 'campaign', 'Island Hopper', 'text'],
                ['g1', 'c1', 'group', 'Foot'],
                ['a1', 'g1', 'ad', 'Deck', 'https://velmar.example/book'],
                ['a2', 'g1', 'ad', 'Cabin', 'https://velmar.example/cabins'],
            ]),
            Make::plan(),
            new Policy(),
            $progress,
        );

        self::assertSame(
            [
                'proving every ad as it is',
                'putting the texts together',
                'proving every ad with the new texts',
                'leaving out what no ad needs',
                "listing what can't be given",
            ],
            array_keys($told),
        );
        self::assertSame(
            [2, 2, 2],
            [
                $told['proving every ad as it is'],
                $told['putting the texts together'],
                $told['proving every ad with the new texts'],
            ],
        );
    }

    /** Ads that no write touches keep their verdict; they are through all the same. */
    public function test_ads_that_are_not_proven_again_are_through(): void
    {
        $account = Make::account([
            ['c1', 'acc', 'campaign', 'Island Hopper', 'text'],
            ['g1', 'c1', 'group', 'Foot'],
            ['a1', 'g1', 'ad', 'Deck', 'https://velmar.example/book'],
            ['a2', 'g1', 'ad', 'Cabin', 'https://velmar.example/cabins'],
        ]);
        $told = [];
        $progress = new Progress(static function (string $step, int $done) use (&$told): void {
            $told[] = $done;
        }, every: 1);
        $proven = new Proven(Scope::whole($account), Make::plan(), new Today($account), new Proving($account));
        $was = $proven->asItIs();
        $will = $proven->with(['a1' => $account->nodes['a1']->withSlot(SlotKind::Suffix, 'utm_source=nq')], $progress);

        self::assertSame([1, 2], $told);
        self::assertSame($was['a2'], $will['a2']);
        self::assertNotEquals($was['a1'], $will['a1']);
    }
}
