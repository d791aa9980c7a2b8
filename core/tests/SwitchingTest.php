<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Compile\Stage;
use Vestigon\Core\Compile\Staged;
use Vestigon\Core\Compile\Switches;
use Vestigon\Core\Compile\Trial;
use Vestigon\Core\Compile\Unmet;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\AutoTagMode;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Trace\Settings;

final class SwitchingTest extends TestCase
{
    public function test_a_click_id_that_the_plan_wants_is_switched_on_first(): void
    {
        $account = self::northquay(new Settings(clickId: false));
        $compiled = Compiler::compile($account, Make::plan());

        self::assertSame([], $compiled->unmet);
        self::assertSame(
            ['node' => 'acc', 'setting' => 'clickId', 'before' => false, 'after' => true],
            $compiled->writes[0]->toArray(),
        );
        self::assertTrue(Write::applied($account, $compiled->writes)->settings->clickId);
        self::assertSame(
            [],
            Compiler::compile(Write::applied($account, $compiled->writes), Make::plan())->writes,
        );
    }

    public function test_left_alone_it_is_unmet_and_that_is_the_cause(): void
    {
        foreach ([new Policy(switches: Switches::Leave), new Policy(within: ['c1'])] as $policy) {
            $compiled = Compiler::compile(self::northquay(new Settings(clickId: false)), Make::plan(), $policy);

            self::assertSame(
                ['a1 nqcid'],
                array_map(static fn (Unmet $u): string => "{$u->node} {$u->key}", $compiled->unmet),
            );
            self::assertStringStartsWith(
                'the click ID is switched off for the account, and ',
                $compiled->unmet[0]->reason,
            );
            self::assertNotContains(Setting::ClickId, array_column($compiled->writes, 'setting'));
        }
    }

    public function test_one_that_the_plan_does_not_want_stays_off(): void
    {
        $compiled = Compiler::compile(self::pellworth(new Settings(), 1), self::tagged('optional'));

        self::assertNotContains(Setting::ClickId, array_column($compiled->writes, 'setting'));
    }

    /**
     * Automatic tags that say something else than the plan stand in the way of one template: only landing URLs would
     * keep them out.
     */
    public function test_tags_are_switched_off_where_that_takes_fewer_writes_and_loses_nothing(): void
    {
        $compiled = Compiler::compile(
            self::pellworth(new Settings(autoTags: AutoTagMode::Fill), 6),
            self::tagged('optional'),
        );

        self::assertSame([], $compiled->unmet);
        self::assertSame(
            [
                'acc autoTags off',
                'acc template '
                .'{LandingPage}?utm_source=pell&utm_medium=search&utm_campaign={CampaignTitle}&utm_content={AdNo}'
                .'&utm_term={SearchPhrase}',
            ],
            self::told($compiled->writes),
        );
    }

    public function test_tags_of_which_one_is_not_the_plan_s_stay_on(): void
    {
        $account = self::pellworth(new Settings(autoTags: AutoTagMode::Fill), 6);
        $compiled = Compiler::compile($account, self::tagged('optional', without: 'utm_term'));

        self::assertEquals(
            $account->settings,
            Write::applied($account, $compiled->writes)->settings,
            'utm_term arrives today by the tags, and is not ours to lose',
        );
    }

    public function test_switches_come_before_the_trial_and_are_there_when_it_is_judged(): void
    {
        $account = self::northquay(new Settings(clickId: false));
        $compiled = Compiler::compile($account, Make::plan());
        $after = Write::applied($account, $compiled->writes);
        $staged = Staged::of($compiled->writes, [Trial::on('a1', $account, $after) ?? self::fail()])->writes;

        self::assertSame([Setting::ClickId, Stage::Trial], [$staged[0][0]->setting, $staged[0][1]]);
        self::assertEquals($after, Write::applied($account, array_column($staged, 0)));
        self::assertSame(
            [false, null],
            [$staged[0][0]->reversed()->toArray()['after'], Setting::ClickId->inDocuments(null)],
        );
    }

    private static function northquay(Settings $settings): Account
    {
        return Make::account([
            ['c1', 'acc', 'campaign', 'Island Hopper', 'text'],
            ['g1', 'c1', 'group', 'Foot'],
            ['a1', 'g1', 'ad', 'Deck', 'https://velmar.example/book'],
        ])->switched($settings);
    }

    private static function pellworth(Settings $settings, int $ads): Account
    {
        $nodes = [
            'acc' => new Node('account', 'acc', 'Velmar'),
            'c' => new Node('campaign', 'c', 'Island Hopper', 'text'),
            'g' => new Node('group', 'g', 'Foot'),
        ];
        $parents = ['acc' => null, 'c' => 'acc', 'g' => 'c'];
        for ($i = 1; $i <= $ads; $i++) {
            $nodes["a{$i}"] = new Node(
                'ad',
                "{$i}",
                "Deck {$i}",
                slots: ['landing' => "https://velmar.example/{$i}"],
            );
            $parents["a{$i}"] = 'g';
        }

        return new Account(
            Shipped::dialect('pellworth-search') ?? throw new \LogicException('it is shipped'),
            $settings,
            [],
            $nodes,
            $parents,
        );
    }

    private static function tagged(string $clickId, ?string $without = null): Plan
    {
        $parameters = [
            ['key' => 'utm_source', 'parts' => [['text' => 'pell']]],
            ['key' => 'utm_medium', 'parts' => [['text' => 'search']]],
            ['key' => 'utm_campaign', 'parts' => [['field' => 'campaign.name']]],
            ['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]],
            ['key' => 'utm_term', 'parts' => [['field' => 'keyword.text']]],
        ];

        return PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => $clickId,
                'parameters' => array_values(
                    array_filter($parameters, static fn (array $p): bool => $p['key'] !== $without),
                ),
            ]),
        );
    }

    /**
     * @param list<Write> $writes
     * @return list<string>
     */
    private static function told(array $writes): array
    {
        return array_map(
            static fn (Write $w): string => "{$w->node} "
                .($w->slot->value ?? ($w->setting->value ?? $w->custom))
                ." {$w->after}",
            $writes,
        );
    }
}
