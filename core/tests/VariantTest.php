<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\State;
use Vestigon\Core\Proof\Survey;

/** Variants take a plan's place for some ads: each ad has exactly one, and texts follow. */
final class VariantTest extends TestCase
{
    private const ACCOUNTS = 8;

    /** @param array<string, mixed> ...$variants */
    private static function plan(array ...$variants): Plan
    {
        return PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'All',
                'clickId' => 'optional',
                'parameters' => self::saying('all'),
                'variants' => $variants,
            ]),
        );
    }

    /** @return list<array<string, mixed>> */
    private static function saying(string $source): array
    {
        return [
            ['key' => 'utm_source', 'parts' => [['text' => $source]], 'required' => true],
            ['key' => 'utm_campaign', 'parts' => [['field' => 'campaign.id']]],
        ];
    }

    /**
     * @param array<string, mixed> $for
     * @return array<string, mixed>
     */
    private static function variant(string $id, array $for): array
    {
        return ['id' => $id, 'title' => ucfirst($id), 'for' => $for, 'parameters' => self::saying($id)];
    }

    /** @param array<string, array<string, string>> $slots */
    private static function account(array $slots = []): \Vestigon\Core\Account\Account
    {
        return Make::account(
            [
                ['c1', 'acc', 'campaign', 'Isle One', 'text'],
                ['g1', 'c1', 'group', 'Foot'],
                ['a1', 'g1', 'ad', 'Deck', 'https://v.example/b'],
                ['c2', 'acc', 'campaign', 'Isle Two', 'text'],
                ['g2', 'c2', 'group', 'Car'],
                ['a2', 'g2', 'ad', 'Ramp', 'https://v.example/c'],
                ['c3', 'acc', 'campaign', 'Isle Three', 'listing'],
                ['g3', 'c3', 'group', 'Boat'],
                ['a3', 'g3', 'ad', 'Mast', 'https://v.example/d'],
            ],
            $slots,
        );
    }

    public function test_each_element_has_the_first_variant_that_counts_for_it(): void
    {
        $account = self::account();
        $plan = self::plan(
            self::variant('second', ['where' => [['field' => 'campaign.id', 'is' => ['c2', 'c9']]]]),
            self::variant('lists', ['types' => ['listing']]),
            self::variant('others', ['where' => [['field' => 'campaign.name', 'is' => ['Isle Two', 'Isle Three']]]]),
        );
        $of = static fn (string $key): ?string => $plan->variantFor($account->pathTo($key))?->id;

        self::assertSame(
            [null, null, 'second', 'second', 'lists'],
            array_map($of, ['acc', 'a1', 'c2', 'a2', 'a3']),
        );
        self::assertSame(['utm_source', 'utm_campaign'], $plan->keys());
        self::assertSame('lists', $plan->in('lists')->parameters[0]->parts[0]->text);
        self::assertSame($plan, $plan->in(''));
    }

    public function test_a_variant_of_another_platform_or_of_nothing_known_counts_for_nothing(): void
    {
        $path = self::account()->pathTo('a1');
        foreach (
            [
                ['platforms' => ['hearthring']],
                ['where' => [['field' => 'campaign.part.market', 'is' => ['nl']]]],
                ['platforms' => ['northquay-search'], 'types' => ['video']],
            ] as $for
        ) {
            self::assertNull(self::plan(self::variant('v', $for))->variantFor($path), (string) json_encode($for));
        }
        self::assertNotNull(
            self::plan(self::variant('v', ['platforms' => ['northquay-search']]))->variantFor($path),
        );
    }

    /** @return iterable<string, array{mixed, string}> */
    public static function unusable(): iterable
    {
        $for = ['types' => ['text']];
        yield 'for nothing in particular' => [[self::variant('v', [])], 'for everything there is the plan itself'];
        yield 'a field of clicks' => [
            [self::variant('v', ['where' => [['field' => 'device', 'is' => ['mobile']]]])],
            'a field of the account, campaign or group is wanted',
        ];
        yield 'no values' => [
            [self::variant('v', ['where' => [['field' => 'campaign.id', 'is' => []]]])],
            'at least one is wanted',
        ];
        yield 'one twice' => [[self::variant('v', $for), self::variant('v', $for)], '"v" is there twice'];
    }

    #[DataProvider('unusable')]
    public function test_what_is_no_variant_is_refused(mixed $variants, string $why): void
    {
        self::assertIsArray($variants);
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage($why);
        self::plan(...$variants);
    }

    public function test_the_account_says_what_most_are_to_send_and_the_others_what_they_are(): void
    {
        $account = self::account();
        $plan = self::plan(self::variant('second', ['where' => [['field' => 'campaign.id', 'is' => ['c2']]]]));
        $compiled = Compiler::compile($account, $plan);
        $written = [];
        foreach ($compiled->writes as $write) {
            $written[$write->node] = $write->after;
        }

        self::assertSame(
            [
                'acc' => 'utm_source=all&utm_campaign={campaign.id}',
                'c2' => 'utm_source=second&utm_campaign={campaign.id}',
            ],
            $written,
        );
        self::assertSame([], Compiler::compile(Write::applied($account, $compiled->writes), $plan)->writes);
    }

    public function test_where_most_are_under_a_variant_the_account_says_that(): void
    {
        $plan = self::plan(self::variant('isles', ['where' => [['field' => 'campaign.id', 'is' => ['c1', 'c2']]]]));
        $written = [];
        foreach (Compiler::compile(self::account(), $plan)->writes as $write) {
            $written[$write->node] = $write->after;
        }

        self::assertSame(['acc', 'c3'], array_keys($written));
        self::assertStringStartsWith('utm_source=isles&', (string) $written['acc']);
        self::assertStringStartsWith('utm_source=all&', (string) $written['c3']);
    }

    public function test_a_variant_s_text_on_ads_of_another_is_wrong(): void
    {
        $plan = self::plan(self::variant('second', ['where' => [['field' => 'campaign.id', 'is' => ['c2']]]]));
        $account = self::account(['acc' => ['suffix' => 'utm_source=second&utm_campaign={campaign.id}']]);
        $survey = new Survey($account, $plan);
        $states = [];
        foreach ($account->ads() as $key => $path) {
            $states[$key] = $survey->ad($path->last(), $account->parents[$key])?->state;
        }

        self::assertSame(['a1' => State::Broken, 'a2' => State::Proven, 'a3' => State::Broken], $states);
    }

    /** @return iterable<string, array{string}> */
    public static function dialects(): iterable
    {
        foreach ([...array_keys(Shipped::all()), 'unseen'] as $id) {
            yield $id => [$id];
        }
    }

    public function test_a_click_id_is_not_left_spoilt_for_a_key_that_a_tracker_adds_itself(): void
    {
        $trial = CompilationTrial::random(7777, 393, varied: true);

        self::assertSame([], $trial->faults(searches: true), implode("\n", $trial->shown()));
    }

    /** What an account of a plan with variants gets, held against clicking every ad in every context. */
    #[DataProvider('dialects')]
    public function test_no_harm_is_done_and_nothing_untold_under_variants(string $dialect): void
    {
        $several = 0;
        $platform = Shipped::dialect($dialect);
        for ($i = 0; $i < Cases::of(self::ACCOUNTS, $platform); $i++) {
            $trial = CompilationTrial::random(41, $i, $platform, varied: true);
            self::assertSame([], $trial->faults($i % 10 === 0), "account {$i}: ".implode("\n", $trial->shown()));
            $lanes = [];
            $survey = new Survey($trial->account, $trial->plan);
            $alone = Prover::for($trial->account, $trial->plan);
            foreach ($trial->account->ads() as $key => $path) {
                $lanes[$trial->plan->lane($path)->variant] = true;
                self::assertSame(
                    array_keys($alone->verdict($path)->faults()),
                    array_keys($survey->ad($path->last(), $trial->account->parents[$key])?->faults() ?? []),
                );
            }
            $several += count($lanes) > 1 ? 1 : 0;
        }
        self::assertGreaterThan(0, $several, 'accounts with ads under several');
    }
}
