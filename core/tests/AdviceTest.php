<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Compile\Advice;
use Vestigon\Core\Compile\Advisor;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Trace\Settings;

final class AdviceTest extends TestCase
{
    /** Reedrail has a token for a campaign's name as it is; as a slug it is written out on every campaign. */
    public function test_names_as_they_are_save_a_text_on_every_campaign(): void
    {
        self::assertSame(
            [
                [
                    'key' => 'utm_campaign',
                    'give' => 'as-is',
                    'writes' => ['now' => 5, 'then' => 1],
                    'nodes' => ['c1', 'c2', 'c3', 'c4', 'c5'],
                ],
            ],
            self::advice(self::account(5), self::plan(['shape' => 'slug', 'required' => true])),
        );
    }

    public function test_what_the_plan_falls_back_on_may_save_as_much(): void
    {
        $plan = self::plan([
            'parts' => [['field' => 'campaign.market']],
            'fallback' => [[['field' => 'campaign.id']]],
            'required' => true,
        ]);

        self::assertSame(
            [['fallback', 5, 1]],
            array_map(
                static fn (array $a): array => [$a['give'], $a['writes']['now'], $a['writes']['then']],
                self::advice(self::account(5), $plan),
            ),
        );
    }

    public function test_a_key_that_is_not_required_could_be_left_out(): void
    {
        self::assertSame(
            ['optional'],
            array_column(
                self::advice(self::account(5), self::plan(['parts' => [['field' => 'campaign.market']]])),
                'give',
            ),
        );
    }

    public function test_what_saves_little_is_not_worth_a_word(): void
    {
        self::assertSame([], self::advice(self::account(2), self::plan(['shape' => 'slug', 'required' => true])));
        self::assertSame([], self::advice(self::account(5), self::plan(['required' => true])));
    }

    /** @return list<array<string, mixed>> */
    private static function advice(Account $account, Plan $plan): array
    {
        return array_map(
            static fn (Advice $a): array => $a->toArray(),
            Advisor::advice($account, $plan, Compiler::compile($account, $plan)),
        );
    }

    private static function account(int $campaigns): Account
    {
        $nodes = ['acc' => new Node('account', 'acc', 'Velmar')];
        $parents = ['acc' => null];
        for ($i = 1; $i <= $campaigns; $i++) {
            $nodes["c{$i}"] = new Node(
                'campaign',
                "{$i}",
                "Summer Sale {$i}",
                'content',
                attributes: ['market' => "m{$i}"],
            );
            $nodes["t{$i}"] = new Node(
                'teaser',
                "9{$i}",
                'Teaser',
                slots: ['landing' => 'https://velmar.example/b'],
            );
            $parents += ["c{$i}" => 'acc', "t{$i}" => "c{$i}"];
        }

        return new Account(
            Shipped::dialect('reedrail') ?? throw new \LogicException('it is shipped'),
            new Settings(),
            [],
            $nodes,
            $parents,
        );
    }

    /** @param array<string, mixed> $campaign the parameter with the campaign's name */
    private static function plan(array $campaign): Plan
    {
        return PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'parameters' => [
                    ['key' => 'utm_source', 'parts' => [['text' => 'reedrail']]],
                    ['key' => 'utm_campaign', 'parts' => [['field' => 'campaign.name']], ...$campaign],
                ],
            ]),
        );
    }
}
