<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Tally;

/** Findings of a whole account: what no single ad shows, and how many ads show the same. */
final class WholeAccountTest extends TestCase
{
    /** @return list<Tally> */
    private static function findings(Account $account, string $code, ?Plan $plan = null): array
    {
        $survey = new Survey(
            $account,
            $plan ?? Make::plan(),
            RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped()),
        );
        foreach ($account->ads() as $key => $path) {
            $survey->ad($path->last(), $account->parents[$key]);
        }

        return array_values(
            array_filter($survey->findings(), static fn (Tally $t): bool => $t->finding->code === $code),
        );
    }

    /** @param array<string, array<string, string>> $slots */
    private static function account(array $slots = []): Account
    {
        return Make::account(
            [
                ['c1', 'acc', 'campaign', 'Isle One', 'text'],
                ['g1', 'c1', 'group', 'Foot'],
                ['a1', 'g1', 'ad', 'Deck', 'https://v.example/b'],
                ['a2', 'g1', 'ad', 'Rail', 'https://v.example/b'],
                ['c2', 'acc', 'campaign', 'Isle Two', 'text'],
                ['g2', 'c2', 'group', 'Car'],
                ['a3', 'g2', 'ad', 'Ramp', 'http://v.example/c'],
            ],
            $slots,
        );
    }

    public function test_the_same_text_on_many_ads_is_one_finding_with_a_count(): void
    {
        $account = self::account(['a1' => ['suffix' => 'utm_sorce=x'], 'a2' => ['suffix' => 'utm_sorce=x']]);
        $found = self::findings($account, 'key-typo');
        self::assertSame(
            [['a1', 2]],
            array_map(static fn (Tally $t): array => [$t->finding->node?->id, $t->count], $found),
        );
        self::assertSame(
            [['a3', 1]],
            array_map(
                static fn (Tally $t): array => [$t->finding->node?->id, $t->count],
                self::findings($account, 'insecure-landing'),
            ),
        );
    }

    public function test_a_text_above_that_names_one_campaign_is_stale_on_all_others(): void
    {
        $found = self::findings(self::account(['acc' => ['suffix' => 'utm_campaign=isle_two']]), 'stale-literal');
        self::assertSame(
            [['acc', 2]],
            array_map(static fn (Tally $t): array => [$t->finding->node?->id, $t->count], $found),
        );
        self::assertStringContainsString('“Isle Two”, but the ad is in “Isle One”', $found[0]->finding->reason);
    }

    public function test_a_value_that_the_plan_makes_of_something_else_names_a_campaign_by_chance(): void
    {
        $plan = PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'parameters' => [['key' => 'utm_campaign', 'parts' => [['field' => 'ad.name']]]],
            ]),
        );

        self::assertSame(
            [],
            self::findings(
                self::account(['a1' => ['suffix' => 'utm_campaign=isle_two']]),
                'stale-literal',
                $plan,
            ),
        );
        self::assertCount(
            1,
            self::findings(self::account(['a1' => ['suffix' => 'utm_campaign=isle_two']]), 'stale-literal'),
        );
    }

    public function test_values_that_differ_by_case_or_spacing_only_are_inconsistent(): void
    {
        $found = self::findings(
            self::account([
                'a1' => ['suffix' => 'utm_medium=cpc&utm_source=nq'],
                'a2' => ['suffix' => 'utm_medium=cpc&utm_source=nq'],
                'a3' => ['suffix' => 'utm_medium=CPC&utm_source=other'],
            ]),
            'inconsistent',
        );
        self::assertCount(1, $found);
        self::assertSame(
            ['a3', 'utm_medium', 'utm_medium=cpc&utm_source=other'],
            [$found[0]->finding->node?->id, $found[0]->finding->key, $found[0]->finding->fix?->text],
        );
        self::assertStringContainsString(
            '“CPC” here (1 times) and “cpc” elsewhere (2 times)',
            $found[0]->finding->reason,
        );
        self::assertSame(
            [],
            self::findings(
                self::account(['a1' => ['suffix' => 'utm_medium=cpc'], 'a3' => ['suffix' => 'utm_medium=email']]),
                'inconsistent',
            ),
        );
    }

    public function test_a_custom_parameter_that_no_ad_uses_is_unused(): void
    {
        $account = self::account(['c1' => ['suffix' => 'c={my.ROUTE}']]);
        $account = $account->with([
            'c1' => $account->nodes['c1']->withCustom('route', 'x'),
            'c2' => $account->nodes['c2']->withCustom('route', 'y'),
        ]);
        $found = self::findings($account, 'custom-parameter-unused');
        self::assertSame(
            [['c2', 'route']],
            array_map(static fn (Tally $t): array => [$t->finding->node?->id, $t->finding->custom], $found),
        );
    }

    public function test_the_worst_come_first_and_nothing_is_said_twice(): void
    {
        $survey = new Survey(
            ($account = self::account([
                'acc' => ['template' => '{landing}?utm_source=NQ&x={nope}'],
                'c1' => ['template' => '{landing}?a=1'],
            ])),
            null,
            RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped()),
        );
        foreach ($account->ads() as $key => $path) {
            self::assertNull($survey->ad($path->last(), $account->parents[$key]), 'no plan, no verdict');
        }
        $found = $survey->findings();
        $ranks = array_map(static fn (Tally $t): int => $t->finding->severity->rank(), $found);
        $sorted = $ranks;
        sort($sorted);
        self::assertSame($sorted, $ranks);
        self::assertSame(
            array_map(static fn (Tally $t): string => $t->finding->id(), $found),
            array_values(array_unique(array_map(static fn (Tally $t): string => $t->finding->id(), $found))),
        );
        self::assertContains('overridden', array_map(static fn (Tally $t): string => $t->finding->code, $found));
        self::assertEquals($found, $survey->findings(), 'asking again changes nothing');
    }

    public function test_an_ad_with_a_frozen_name_of_its_own_is_seen_among_others_alike(): void
    {
        $dialect = Shipped::dialect('hearthring') ?? self::fail();
        $post = static fn (string $id, ?string $published): Node => new Node(
            'post',
            $id,
            'Post',
            null,
            ['suffix' => 'c=[post:name]', 'landing' => 'https://v.example/'],
            [],
            [],
            $published,
        );
        $wide = new Account(
            $dialect,
            new \Vestigon\Core\Trace\Settings(),
            [],
            ['A' => new Node('account', 'A', 'A')],
            ['A' => null],
        );
        $survey = new Survey($wide, null, RuleBook::all([$dialect], ChannelsReader::shipped()));
        foreach ([$post('p1', null), $post('p2', 'Old'), $post('p3', null), $post('p4', 'Older')] as $ad) {
            $survey->ad($ad, 'A');
        }
        $frozen = array_filter(
            $survey->findings(),
            static fn (Tally $t): bool => $t->finding->code === 'frozen-name',
        );
        self::assertSame(
            [['p2', 1], ['p4', 1]],
            array_values(array_map(static fn (Tally $t): array => [$t->finding->node?->id, $t->count], $frozen)),
        );

        $survey = new Survey($wide, null, RuleBook::all([$dialect], ChannelsReader::shipped()));
        foreach ([$post('p5', 'Old'), $post('p6', null)] as $ad) {
            $survey->ad($ad, 'A');
        }
        $frozen = array_filter(
            $survey->findings(),
            static fn (Tally $t): bool => $t->finding->code === 'frozen-name',
        );
        self::assertSame(
            [['p5', 1]],
            array_values(array_map(static fn (Tally $t): array => [$t->finding->node?->id, $t->count], $frozen)),
            'the next one is not frozen',
        );
    }
}
