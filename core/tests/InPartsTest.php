<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Compiled;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Decided;
use Vestigon\Core\Compile\Deciding;
use Vestigon\Core\Compile\InParts;
use Vestigon\Core\Compile\Objections;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Compile\WholeAccount;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Plan\Plan;

/** An account compiled in parts, held against all that a compilation must be and against one in one piece. */
final class InPartsTest extends TestCase
{
    /** Accounts in which the first ads that were looked at did not show what a text above them would do to others. */
    private const TOLD = ['northquay-search' => [25], 'pellworth-search' => [1, 51]];

    public static function dialects(): iterable
    {
        foreach (Shipped::all() as $dialect) {
            yield $dialect->id => [$dialect];
        }
    }

    #[DataProvider('dialects')]
    public function test_nothing_is_untrue_or_lost_in_parts(Dialect $dialect): void
    {
        $writes = ['in parts' => 0, 'in one piece' => 0];
        foreach ([...self::TOLD[$dialect->id] ?? [], ...range(60, 61)] as $number) {
            mt_srand(crc32("parts {$dialect->id} {$number}"));
            $plan = RandomAccounts::plan();
            $account = RandomAccounts::account($dialect, $plan);
            $compiled = self::inParts($account, $plan);
            $trial = new CompilationTrial($account, $plan, $compiled);

            self::assertSame([], $trial->faults(), "{$dialect->id} {$number}");
            self::assertSame([], self::inParts($trial->after, $plan)->writes, "{$dialect->id} {$number}: again");
            $writes['in parts'] += count($compiled->writes);
            $writes['in one piece'] += count(Compiler::compile($account, $plan)->writes);
        }

        self::assertLessThanOrEqual(1.25 * $writes['in one piece'] + 1, $writes['in parts']);
    }

    private static function inParts(Account $account, Plan $plan): Compiled
    {
        $root = (string) array_search(null, $account->parents, true);
        $deciding = new class($account, $plan, $root) extends Deciding {
            public Compiled $compiled;

            private readonly InParts $parts;

            /** @var array<string, list<string>> the ads that are looked at: of each widest part one, to begin with */
            private array $some = [];

            public function __construct(private readonly Account $account, Plan $plan, private readonly string $root)
            {
                $this->parts = new InParts(new WholeAccount($account, $plan), $plan, new Policy());
                $seen = [];
                foreach ($account->adNodes() as $ad => $_) {
                    $keys = $account->keysTo((string) $ad);
                    $this->some += isset($seen[$keys[1]]) ? [] : [(string) $ad => $keys];
                    $seen[$keys[1]] = true;
                }
            }

            protected function decided(): Decided
            {
                $keys = array_fill_keys(array_merge(...array_values($this->some)), true);

                return $this->parts->decided($this->account->only($keys), [$this->root]);
            }

            protected function learn(array $ads): bool
            {
                $new = array_diff($ads, array_keys($this->some));
                foreach ($new as $ad) {
                    $this->some[$ad] = $this->account->keysTo($ad);
                }

                return $new !== [];
            }

            protected function work(Decided $decided): Objections
            {
                $all = new Compiled($decided->writes, $decided->unmet, [], $decided->overridden);
                $objections = new Objections();
                foreach (array_keys($this->account->parents, $this->root, true) as $top) {
                    $isIn = fn (string|int $key): bool => $key === $this->root
                        || in_array((string) $top, $this->account->keysTo((string) $key), true);
                    $keys = array_filter($this->account->parents, $isIn, ARRAY_FILTER_USE_KEY);
                    $part = $this->account->only($keys + [$this->root => true]);
                    $part = $this->parts->part($part, [(string) $top], $decided);
                    $objections = $objections->and(Objections::in($part));
                    $all = new Compiled(
                        [...$all->writes, ...$part->writes],
                        [...$all->unmet, ...$part->unmet],
                        [...$all->kept, ...$part->kept],
                        [...$all->overridden, ...$part->overridden],
                        $all->was + $part->was,
                        $all->will + $part->will,
                    );
                }
                $this->compiled = $all;

                return $objections;
            }
        };
        $deciding->settle();

        return $deciding->compiled;
    }
}
