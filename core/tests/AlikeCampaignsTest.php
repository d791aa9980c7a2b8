<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Compiled;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Proof\State;

/** Campaigns that look alike are brought in line alike, though not every way is tried on each of them. */
final class AlikeCampaignsTest extends TestCase
{
    private const COPIES = 5;

    public static function dialects(): iterable
    {
        foreach (Shipped::all() as $dialect) {
            yield $dialect->id => [$dialect];
        }
    }

    public function test_a_text_of_their_own_with_a_wrong_key_is_mended_in_each_of_many(): void
    {
        $rows = $slots = [];
        foreach (range(1, 12) as $c) {
            $rows[] = ["c{$c}", 'acc', 'campaign', "Route {$c}", 'text'];
            $rows[] = ["g{$c}", "c{$c}", 'group', 'Foot'];
            $rows[] = ["a{$c}", "g{$c}", 'ad', 'Deck', "https://velmar.example/{$c}?utm_source=newsletter"];
            $rows[] = ["b{$c}", "g{$c}", 'ad', 'Cabin', "https://velmar.example/{$c}?lang=en"];
            $slots["c{$c}"] = $c === 1
                ? []
                : ['template' => '{landing}?utm_sorce=northquay&utm_medium=cpc&utm_campaign={campaign.id}'];
        }
        $compiled = Compiler::compile(Make::account($rows, $slots), Make::plan());

        self::assertSame([], $compiled->unmet);
        $states = array_unique(array_column($compiled->will, 'state'), SORT_REGULAR);
        self::assertSame([State::Proven], array_values($states));
        $last = self::writesIn($compiled, static fn (string $node): bool => str_ends_with($node, '12'));
        foreach (range(2, 11) as $c) {
            $writes = self::writesIn($compiled, static fn (string $node): bool => substr($node, 1) === (string) $c);
            self::assertSame(str_replace(['/12', 'route_12'], ["/{$c}", "route_{$c}"], $last), $writes);
        }
    }

    #[DataProvider('dialects')]
    public function test_copies_of_campaigns_of_random_accounts_are_written_to_alike(Dialect $dialect): void
    {
        foreach ([1, 2] as $number) {
            mt_srand(crc32("alike {$dialect->id} {$number}"));
            $plan = RandomAccounts::plan();
            $account = self::copied(RandomAccounts::account($dialect, $plan));
            $trial = new CompilationTrial($account, $plan);

            self::assertSame([], $trial->faults(), "{$dialect->id} {$number}");
            $unmet = [];
            foreach ($trial->compiled->unmet as $one) {
                if (isset($trial->compiled->will[$one->node])) {
                    $copy = explode('~', $one->node)[1] ?? 'first';
                    $unmet[$copy] = ($unmet[$copy] ?? 0) + 1;
                }
            }
            self::assertLessThanOrEqual(1, count(array_unique($unmet)), json_encode($unmet) ?: '');
        }
    }

    /** An account with copies of all its campaigns, each under another key and number. */
    private static function copied(Account $account): Account
    {
        $level = $account->dialect->levelOf(Role::Campaign)?->id;
        [$nodes, $parents] = [$account->nodes, $account->parents];
        foreach ($account->nodes as $key => $node) {
            $key = (string) $key;
            $above = array_filter(
                $account->keysTo($key),
                static fn (string $k): bool => $account->nodes[$k]->level === $level,
            );
            foreach ($above === [] ? [] : range(1, self::COPIES) as $copy) {
                $parent = $account->parents[$key];
                $nodes["{$key}~{$copy}"] = $node->withId("{$node->id}~{$copy}");
                $parents["{$key}~{$copy}"] = $node->level === $level ? $parent : "{$parent}~{$copy}";
            }
        }

        return new Account($account->dialect, $account->settings, $account->hops, $nodes, $parents);
    }

    /**
     * @param \Closure(string): bool $isIn
     * @return list<string> what is written, without the numbers of elements
     */
    private static function writesIn(Compiled $compiled, \Closure $isIn): array
    {
        return array_values(
            array_map(
                static fn (Write $w): string => $w->node[0].' '.($w->slot->value ?? $w->custom).' '.$w->after,
                array_filter($compiled->writes, static fn (Write $w): bool => $isIn($w->node)),
            ),
        );
    }
}
