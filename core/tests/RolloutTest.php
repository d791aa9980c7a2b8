<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Compile\BySafety;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Compile\Staged;
use Vestigon\Core\Compile\Trial;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Trace\Route;

/**
 * The compiler's help for a safe rollout: a part of an account alone, a trial on one ad, the least risky writes first.
 */
final class RolloutTest extends TestCase
{
    private static function two(): Account
    {
        return Make::account(
            [
                ['c1', 'acc', 'campaign', 'Island Hopper', 'text'],
                ['g1', 'c1', 'group', 'Foot'],
                ['a1', 'g1', 'ad', 'Deck', 'https://velmar.example/book?utm_source=old'],
                ['c2', 'acc', 'campaign', 'Night Cabins', 'text'],
                ['g2', 'c2', 'group', 'Bed'],
                ['a2', 'g2', 'ad', 'Cabin', 'https://velmar.example/cabins'],
            ],
            ['acc' => ['suffix' => 'utm_source=nq']],
        );
    }

    /** @return list<string> */
    private static function told(array $writes): array
    {
        return array_map(
            static fn (Write $w): string => "{$w->node} "
                .($w->slot->value ?? $w->custom)
                .' = '
                .($w->after ?? '(none)'),
            $writes,
        );
    }

    public function test_a_part_of_an_account_is_brought_in_line_without_touching_the_rest(): void
    {
        $compiled = Compiler::compile(self::two(), Make::plan(), new Policy(within: ['g1']));

        self::assertSame([], $compiled->unmet);
        self::assertSame(
            [
                'g1 campaign_name = island_hopper',
                'g1 suffix = '
                .'utm_source=northquay&utm_medium=cpc&utm_campaign={my.campaign_name}&utm_term={term}'
                .'&utm_content={ad.id}',
                'a1 landing = https://velmar.example/book',
            ],
            self::told($compiled->writes),
        );
    }

    /** @return iterable<string, array{Dialect}> */
    public static function dialects(): iterable
    {
        foreach (Shipped::all() as $id => $dialect) {
            yield $id => [$dialect];
        }
    }

    #[DataProvider('dialects')]
    public function test_random_parts_of_random_accounts(Dialect $dialect): void
    {
        mt_srand(crc32($dialect->id) + 1);
        $written = $trials = 0;
        for ($i = 0; $i < Cases::of(60, $dialect); $i++) {
            $plan = RandomAccounts::plan();
            $account = RandomAccounts::account($dialect, $plan);
            $scope = (string) array_rand($account->nodes);
            $inside = static fn (string $key): bool => in_array($scope, $account->keysTo($key), true);
            $compiled = Compiler::compile($account, $plan, new Policy(within: [$scope]));
            $after = self::applied($account, $compiled->writes);
            $unmet = array_flip(array_map(static fn ($u): string => "{$u->node} {$u->key}", $compiled->unmet));
            foreach ($compiled->writes as $write) {
                self::assertTrue($inside($write->node), "account {$i}: {$write->node} is outside {$scope}");
                $written++;
            }
            foreach ($after->ads() as $key => $ad) {
                foreach ($inside($key) ? Prover::for($after, $plan)->verdict($ad)->counterexamples : [] as $c) {
                    self::assertArrayHasKey("{$key} {$c->key}", $unmet, "account {$i}: {$c->reason}");
                }
            }
            self::assertSame(
                [],
                self::told(Compiler::compile($after, $plan, new Policy(within: [$scope]))->writes),
                "account {$i}: compiling again writes",
            );
            $trials += self::tries($account->switched($after->settings), $after);
        }
        self::assertGreaterThan(30, $written);
        if (in_array($dialect->id, ['northquay-search', 'pellworth-search', 'hearthring', 'bannerloom'], true)) {
            self::assertGreaterThan(20, $trials);
        }
    }

    /**
     * Tries every ad that a change moves: it must arrive as after the change, and no other ad may that is not below
     * what is written to.
     */
    private static function tries(Account $before, Account $after): int
    {
        $n = 0;
        $urls = static fn (Account $a): array => array_map(
            static fn ($p): ?string => Route::once($p, ['keyword.text' => 'ä b'], $a->settings, $a->hops)->landed,
            iterator_to_array($a->ads()),
        );
        $was = $urls($before);
        $will = $urls($after);
        foreach (array_keys(array_diff_assoc($will, $was)) as $ad) {
            $trial = Trial::on((string) $ad, $before, $after);
            if ($trial !== null) {
                $n++;
                $tried = $urls(
                    self::applied(
                        $before->with(array_intersect_key($after->nodes, array_flip($trial->nodes))),
                        $trial->asIf,
                    ),
                );
                self::assertSame($will[$ad], $tried[$ad]);
                $others = array_filter(
                    $tried,
                    static fn (string|int $other): bool => ! in_array(
                        $trial->nodes[0],
                        $before->keysTo((string) $other),
                        true,
                    ),
                    ARRAY_FILTER_USE_KEY,
                );
                self::assertSame([], array_diff_assoc($others, $was), 'no other ad is touched');
            }
        }

        return $n;
    }

    public function test_a_trial_says_on_the_ad_what_wider_levels_will_say(): void
    {
        $account = self::two();
        $after = self::applied($account, Compiler::compile($account, Make::plan())->writes);

        self::assertSame(
            [
                'a2 suffix = '
                .'utm_source=northquay&utm_medium=cpc&utm_campaign={my.campaign_name}&utm_term={term}'
                .'&utm_content={ad.id}',
                'a2 campaign_name = night_cabins',
            ],
            self::told(Trial::on('a2', $account, $after)->asIf ?? []),
        );
    }

    public function test_where_ads_do_not_take_the_text_it_is_said_on_the_campaign(): void
    {
        $nodes = [
            'm' => new Node('account', 'm', 'M'),
            'p' => new Node('programme', 'p', 'P'),
            'c' => new Node('campaign', 'c', 'C'),
            'd' => new Node('campaign', 'd', 'D'),
            'i' => new Node('creative', 'i', 'I', null, ['landing' => 'https://v.example/']),
            'j' => new Node('creative', 'j', 'J', null, ['landing' => 'https://v.example/']),
        ];
        $account = new Account(Shipped::dialect('guildloft') ?? self::fail(), self::two()->settings, [], $nodes, [
            'm' => null,
            'p' => 'm',
            'c' => 'p',
            'd' => 'p',
            'i' => 'c',
            'j' => 'd',
        ]);
        $source = Write::slot('m', SlotKind::Suffix, null, 'utm_source=guildloft');
        $after = self::applied($account, [$source]);
        $trial = Trial::on('i', $account, $after) ?? self::fail();

        self::assertSame(
            [['c', 'i'], ['c suffix = utm_source=guildloft'], false],
            [$trial->nodes, self::told($trial->asIf), $trial->isOnAdAlone()],
        );
        self::assertSame(
            ['c suffix = utm_source=guildloft', 'm suffix = utm_source=guildloft', 'c suffix = (none)'],
            self::told(array_column(Staged::of([$source], [$trial])->writes, 0)),
        );
    }

    public function test_no_trial_where_it_would_have_to_be_said_on_the_account(): void
    {
        $dialect = Shipped::dialect('guildloft') ?? self::fail();
        $nodes = [
            'm' => new Node('account', 'm', 'M'),
            'i' => new Node('creative', 'i', 'I', null, ['landing' => 'https://v.example/']),
        ];
        $account = new Account($dialect, self::two()->settings, [], $nodes, ['m' => null, 'i' => 'm']);

        self::assertNull(
            Trial::on(
                'i',
                $account,
                self::applied($account, [Write::slot('m', SlotKind::Suffix, null, 'utm_source=guildloft')]),
            ),
        );
    }

    public function test_values_come_before_the_texts_that_use_them_and_what_is_reviewed_again_behind(): void
    {
        $writes = BySafety::ordered(
            [
                Write::custom('unused', 'old', 'v', null),
                Write::slot('reviewed', SlotKind::Landing, 'x', 'y'),
                Write::slot('first', SlotKind::Suffix, null, 'utm_campaign={my.n}'),
                Write::slot('second', SlotKind::Suffix, null, 'y'),
                Write::custom('value', 'n', null, 'v'),
                Write::setting('switch', Setting::ClickId, 'off', 'on'),
            ],
            Make::northquay(),
        );

        self::assertSame(
            ['switch', 'value', 'first', 'second', 'reviewed', 'unused'],
            array_map(static fn (Write $w): string => $w->node, $writes),
        );
        self::assertSame([4], array_keys(BySafety::reviewed($writes, Make::northquay())));
    }

    public function test_the_trial_comes_first_and_is_tidied_up_last(): void
    {
        $account = self::two();
        $account = $account->with(['a1' => $account->nodes['a1']->withSlot(SlotKind::Suffix, 'utm_medium=ppc')]);
        $writes = Compiler::compile($account, Make::plan())->writes;
        $after = self::applied($account, $writes);
        $staged = Staged::of($writes, [Trial::on('a1', $account, $after) ?? self::fail()])->writes;

        self::assertSame(
            $after->nodes['a1']->slots,
            self::applied($account, array_column($staged, 0))->nodes['a1']->slots,
        );
        self::assertEquals($after->nodes, self::applied($account, array_column($staged, 0))->nodes);
        self::assertSame(
            ['trial', 'trial', 'trial', 'rest', 'rest', 'rest', 'after', 'after'],
            array_map(static fn (array $w): string => $w[1]->value, $staged),
        );
        self::assertSame(
            [
                'a1 landing = https://velmar.example/book',
                'a1 suffix = '
                .'utm_source=northquay&utm_medium=cpc&utm_campaign={my.campaign_name}&utm_term={term}'
                .'&utm_content={ad.id}',
                'a1 campaign_name = island_hopper',
            ],
            self::told(array_column(array_slice($staged, 0, 3), 0)),
        );
        self::assertSame(
            ['a1 suffix = (none)', 'a1 campaign_name = (none)'],
            self::told(array_column(array_slice($staged, 6), 0)),
        );
    }

    /** @param list<Write> $writes */
    private static function applied(Account $account, array $writes): Account
    {
        return Write::applied($account, $writes);
    }
}
