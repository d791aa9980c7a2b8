<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Dialect\AutoTagMode;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Proof\Counterexample;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\State;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Verdict;
use Vestigon\Core\Trace\Settings;

final class SurveyTest extends TestCase
{
    private const ACCOUNTS = 500;

    /** @return iterable<string, array{Dialect}> */
    public static function dialects(): iterable
    {
        foreach (Shipped::ids() as $id) {
            yield $id => [Shipped::dialect($id) ?? self::fail($id)];
        }
        yield 'one with everything' => [self::everything()];
    }

    /** A platform where what a value is matters in every way that a dialect can say. */
    private static function everything(): Dialect
    {
        $document = json_decode(
            (string) file_get_contents(dirname(__DIR__).'/dialects/northquay-search.json'),
            true,
        );
        $tags = json_decode(
            (string) file_get_contents(dirname(__DIR__).'/dialects/pellworth-search.json'),
            true,
        )['autoTags'];
        $value = static fn (string $name, string $field, array $more = []): array => [
            'name' => $name,
            'kind' => 'value',
            'field' => $field,
            ...$more,
        ];
        array_push(
            $document['tokens'],
            $value('c', 'campaign.name'),
            $value('c0', 'campaign.name', ['encode' => 0]),
            $value('c2', 'campaign.name', ['encode' => 2]),
            $value('g', 'group.name'),
            $value('a', 'ad.name'),
            $value('w', 'ad.width', ['values' => ['728' => 'wide']]),
            $value('h', 'ad.height'),
            ['name' => 'if.brand', 'kind' => 'when', 'field' => 'campaign.name', 'is' => ['brand', 'cpc']],
        );

        return DialectReader::read(
            new Cursor(
                ['id' => 'everything', 'campaignTypes' => ['text'], 'autoTags' => $tags, 'namesFreeze' => true]
                    + $document,
            ),
        );
    }

    /**
     * Thousands of random accounts: nothing proven that tracing every ad in every context breaks, nothing broken that
     * it does not.
     */
    #[DataProvider('dialects')]
    public function test_agrees_with_brute_force(Dialect $dialect): void
    {
        mt_srand(crc32($dialect->id));
        $states = [];
        $accounts = $dialect->id === 'everything' ? Cases::of(3 * self::ACCOUNTS) : self::ACCOUNTS;
        for ($i = 0; $i < $accounts; $i++) {
            $plan = RandomAccounts::plan();
            $account = RandomAccounts::account($dialect, $plan);
            $survey = new Survey($account, $plan);
            $alone = Prover::for($account, $plan);
            foreach ($account->ads() as $key => $path) {
                $one = $alone->verdict($path);
                $many = $survey->ad($path->last(), $account->parents[$key]);
                self::assertNotNull($many);
                self::assertSame(
                    [$one->state, self::faults($one)],
                    [$many->state, self::faults($many)],
                    "account {$i} of {$dialect->id}, {$key}: "
                        .json_encode($path->nodes, JSON_INVALID_UTF8_SUBSTITUTE),
                );
                $states[$one->state->value] = ($states[$one->state->value] ?? 0) + 1;
            }
        }
        self::assertGreaterThan(20, $states[State::Broken->value] ?? 0);
        self::assertGreaterThan(5, $states[State::Proven->value] ?? 0, 'the accounts are not all broken');
    }

    /**
     * @return iterable<string, array{string, string, string}> a text, and a name with which it keeps the plan, and one
     *     with which it does not
     */
    public static function valuesThatMatter(): iterable
    {
        yield 'a condition on a name' => ['{if.brand:c=1}&n={c}', 'brand', 'other'];
        yield 'a name put in as it is' => ['c=1&n={c0}', 'plain', 'a&b'];
        yield 'a name as a key' => ['c=1&n={c}&{c}=x', 'other', 'n'];
        yield 'a name encoded twice' => ['c=1&n={c2}', 'plain', 'two words'];
        yield 'a name as fixed text' => ['c=1&n=plain', 'plain', 'other'];
    }

    #[DataProvider('valuesThatMatter')]
    public function test_ads_with_the_same_texts_can_differ_by_their_names(
        string $suffix,
        string $good,
        string $bad,
    ): void {
        $dialect = self::everything();
        $plan = PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'parameters' => [
                    ['key' => 'c', 'parts' => [['text' => '1']]],
                    ['key' => 'n', 'parts' => [['field' => 'campaign.name']]],
                ],
            ]),
        );
        $nodes = ['acc' => new Node('account', 'acc', 'A', null, ['suffix' => $suffix])];
        $parents = ['acc' => null];
        foreach ([$good, $bad, $good, $bad] as $i => $name) {
            $nodes["c{$i}"] = new Node('campaign', "c{$i}", $name, 'text');
            $nodes["a{$i}"] = new Node('ad', "a{$i}", 'Ad', null, ['landing' => 'https://v.example/b']);
            $parents += ["c{$i}" => 'acc', "a{$i}" => "c{$i}"];
        }
        $survey = new Survey(
            new Account($dialect, new Settings(autoTags: AutoTagMode::Off), [], $nodes, $parents),
            $plan,
        );
        $states = array_map(
            static fn (int $i): ?State => $survey->ad($nodes["a{$i}"], "c{$i}")?->state,
            range(0, 3),
        );

        self::assertSame([State::Proven, State::Broken, State::Proven, State::Broken], $states);
        self::assertSame(
            2,
            array_sum(
                array_map(
                    static fn ($b): int => $b->ads,
                    array_filter(
                        $survey->counterexamples(),
                        static fn ($b): bool => $b->example->key === $survey->counterexamples()[0]->example->key,
                    ),
                ),
            ),
        );
    }

    public function test_what_an_ad_lacks_is_not_taken_from_another(): void
    {
        $plan = PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'parameters' => [['key' => 's', 'parts' => [['field' => 'ad.height']]]],
            ]),
        );
        $wide = new Account(
            self::everything(),
            new Settings(autoTags: AutoTagMode::Off),
            [],
            ['acc' => new Node('account', 'acc', 'A', null, ['suffix' => 's={h}'])],
            ['acc' => null],
        );
        $survey = new Survey($wide, $plan);
        foreach ([['height' => '90'], [], ['height' => 'a b']] as $i => $facts) {
            self::assertSame(
                State::Proven,
                $survey->ad(
                    new Node('ad', "a{$i}", 'Ad', null, ['landing' => 'https://v.example/b'], [], $facts),
                    'acc',
                )?->state,
            );
        }
    }

    /** Texts and names made of the marks that the code uses, or once used, between texts and in place of values. */
    public function test_texts_made_of_marks_of_our_own_mean_nothing(): void
    {
        mt_srand(19);
        $bits = [
            'qzx0k',
            'qzx1k',
            'qzy0k',
            'qzx99k',
            "\x01",
            "\x010\x01",
            "\0",
            '1:',
            '-',
            'custom',
            'x',
            'k',
            '?',
            '&',
            '=',
            '{c}',
            '{a}',
            '{landing}',
            'https://v.example/',
            'c=',
            'n=',
        ];
        $text = static fn (int $most): string => implode(
            '',
            array_map(static fn (): string => $bits[mt_rand(0, count($bits) - 1)], range(1, mt_rand(1, $most))),
        );
        $plan = self::plan([
            ['key' => 'c', 'parts' => [['field' => 'campaign.name']]],
            ['key' => 'n', 'parts' => [['field' => 'ad.name']]],
        ]);
        for ($i = 0, $n = Cases::of(400); $i < $n; $i++) {
            $nodes = [
                'acc' => new Node(
                    'account',
                    'acc',
                    'A',
                    null,
                    mt_rand(0, 1) === 1 ? ['suffix' => $text(4)] : ['template' => '{landing}?'.$text(4)],
                ),
            ];
            $parents = ['acc' => null];
            foreach (range(0, 3) as $n) {
                $nodes["c{$n}"] = new Node('campaign', "c{$n}", $text(2), 'text');
                $nodes["a{$n}"] = new Node('ad', "a{$n}", $text(2), null, [
                    'landing' => 'https://v.example/'.['qzx99k?c=qzx0k', "b?n=\x010\x01", $text(2)][mt_rand(0, 2)],
                ]);
                $parents += ["c{$n}" => 'acc', "a{$n}" => "c{$n}"];
            }
            $account = new Account(
                self::everything(),
                new Settings(autoTags: AutoTagMode::Off),
                [],
                $nodes,
                $parents,
            );
            $survey = new Survey($account, $plan);
            $alone = Prover::for($account, $plan);
            foreach ($account->ads() as $key => $path) {
                $many = $survey->ad($path->last(), $parents[$key]);
                self::assertNotNull($many);
                self::assertSame(
                    self::faults($alone->verdict($path)),
                    self::faults($many),
                    "account {$i}, {$key}: ".json_encode($path->nodes),
                );
            }
            Compiler::compile($account, $plan, new Policy());
        }
    }

    public function test_names_that_hold_the_mark_between_two_are_told_apart(): void
    {
        $plan = self::plan([
            [
                'key' => 'c',
                'parts' => [['field' => 'campaign.name'], ['text' => '-'], ['field' => 'campaign.market']],
            ],
        ]);
        $nodes = ['acc' => new Node('account', 'acc', 'A', null, ['suffix' => 'c=b%00c%00c-d'])];
        foreach ([["b\0c\0c", 'd'], ['b', "c\0c-d"], ["b\0c\0c", 'e']] as $n => [$name, $market]) {
            $nodes["c{$n}"] = new Node('campaign', "c{$n}", $name, 'text', [], [], ['market' => $market]);
        }
        $survey = new Survey(
            new Account(self::everything(), new Settings(autoTags: AutoTagMode::Off), [], $nodes, [
                'acc' => null,
                'c0' => 'acc',
                'c1' => 'acc',
                'c2' => 'acc',
            ]),
            $plan,
        );
        $states = array_map(
            static fn (int $n): ?State => $survey->ad(
                new Node('ad', 'a', 'Ad', null, ['landing' => 'https://v.example/b']),
                "c{$n}",
            )?->state,
            range(0, 2),
        );

        self::assertSame([State::Proven, State::Broken, State::Broken], $states);
    }

    public function test_an_ad_can_stand_alone(): void
    {
        $survey = new Survey(
            new Account(self::everything(), new Settings(autoTags: AutoTagMode::Off), [], [], []),
            self::plan([['key' => 'c', 'parts' => [['text' => '1']]]]),
            RuleBook::all([self::everything()], ChannelsReader::shipped()),
        );

        self::assertSame(
            State::Proven,
            $survey->ad(new Node('ad', 'a', 'Ad', null, ['landing' => 'https://v.example/b?c=1']), null)?->state,
        );
    }

    /** @param list<array<string, mixed>> $parameters */
    private static function plan(array $parameters): Plan
    {
        return PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'parameters' => $parameters,
            ]),
        );
    }

    /** @return list<string> */
    private static function faults(Verdict $verdict): array
    {
        $faults = array_map(
            static fn (Counterexample $c): string => "{$c->code} {$c->key}",
            $verdict->counterexamples,
        );
        sort($faults);

        return $faults;
    }
}
