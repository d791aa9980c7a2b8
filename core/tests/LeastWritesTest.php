<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Compile\Carrier;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Compile\Verdicts;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Today;

/**
 * How far the compiler is from the fewest writes, by trying all smaller sets of writes on small accounts.
 *
 * As good is what does as well for the ads that there are and for those of tomorrow, since the plan goes on the widest
 * level that does. Tried are, for what the account switches, each choice; for every slot and custom parameter of every
 * node: clearing it, and each text that any way of compiling, or the account itself, has for such a place.
 */
final class LeastWritesTest extends TestCase
{
    private const TRIED = 40_000;

    public function test_hardly_any_account_could_be_brought_in_line_with_fewer_writes(): void
    {
        mt_srand(417);
        $ours = $least = $accounts = 0;
        foreach (Shipped::all() as $dialect) {
            for ($i = 0; $i < Cases::of(14, $dialect); $i++) {
                $plan = RandomAccounts::plan();
                $account = self::small(RandomAccounts::account($dialect, $plan));
                $writes = Compiler::compile($account, $plan)->writes;
                $fewer = self::fewer(
                    self::withTomorrow($account),
                    $plan,
                    $writes,
                    self::candidates($account, $plan),
                );
                if ($fewer === null) {
                    continue; // more sets than can be tried
                }
                $accounts++;
                $ours += count($writes);
                $least += $fewer;
            }
        }
        self::assertGreaterThan(60, $accounts);
        self::assertGreaterThan(100, $ours);
        self::assertLessThanOrEqual(
            1.03 * $least,
            $ours,
            "{$ours} writes where {$least} would do, in {$accounts} accounts",
        );
    }

    private static ?Account $today = null;

    /** The first two ads and what stands above them. */
    private static function small(Account $account): Account
    {
        $keys = [];
        foreach ($account->adNodes() as $key => $ad) {
            if (count($keys) < 2) {
                $keys[] = $account->keysTo($key);
            }
        }
        $keep = array_flip(array_merge(...$keys));

        return $account->only($keep);
    }

    /**
     * With the ads of tomorrow: one more below everything, and a campaign of its own. Texts on the widest level reach
     * them.
     */
    private static function withTomorrow(Account $account): Account
    {
        [$nodes, $parents] = [$account->nodes, $account->parents];
        $levels = $account->dialect->levels;
        $grow = static function (string $below, int $depth) use (&$nodes, &$parents, $levels, $account): void {
            for ($parent = $below; isset($levels[$depth]); $depth++) {
                $key = "new {$parent}";
                $isAd = $levels[$depth]->role === Role::Ad;
                $nodes[$key] = new Node(
                    $levels[$depth]->id,
                    '99',
                    'new',
                    $levels[$depth]->role === Role::Campaign ? $account->dialect->campaignTypes[0] ?? null : null,
                    $isAd ? ['landing' => 'https://v.example/new'] : [],
                );
                $parents[$key] = $parent;
                $parent = $key;
            }
        };
        foreach ($account->nodes as $key => $node) {
            $level = $account->dialect->level($node->level);
            if ($level !== null && $level->role !== Role::Ad) {
                $grow((string) $key, $level->depth + 1);
            }
        }

        return new Account($account->dialect, $account->settings, $account->hops, $nodes, $parents);
    }

    /**
     * @param list<Write> $writes
     * @param list<list<Write>> $candidates by place
     * @return int|null the fewest writes after which no more is wrong than after these; null: too many sets to try
     */
    private static function fewer(Account $account, Plan $plan, array $writes, array $candidates): ?int
    {
        self::$today = $account; // harm is forbidden on both sides
        $allowed = self::faults(self::applied($account, $writes), $plan);
        $budget = self::TRIED;
        for ($size = 0; $size < count($writes); $size++) {
            $found = self::sets($account, $plan, $candidates, $size, $allowed, $budget);
            if ($found || $budget <= 0) {
                return $found ? $size : null;
            }
        }

        return count($writes);
    }

    /**
     * @param list<list<Write>> $candidates by place
     * @param array<string, true> $allowed
     */
    private static function sets(
        Account $account,
        Plan $plan,
        array $candidates,
        int $size,
        array $allowed,
        int &$budget,
    ): bool {
        if ($size === 0) {
            $budget--;

            return array_diff_key(self::faults($account, $plan), $allowed) === [];
        }
        for ($i = 0; $i + $size <= count($candidates) && $budget > 0; $i++) {
            foreach ($candidates[$i] as $write) {
                if (
                    self::sets(
                        self::applied($account, [$write]),
                        $plan,
                        array_slice($candidates, $i + 1),
                        $size - 1,
                        $allowed,
                        $budget,
                    )
                ) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @return list<list<Write>> by place */
    private static function candidates(Account $account, Plan $plan): array
    {
        $texts = [];
        $add = static function (string $node, string $place, ?string $text) use (&$texts): void {
            // an ad's landing page is its own
            $texts[$place === 'landing' ? "landing {$node}" : $place][$text ?? "\0"] = $text;
        };
        foreach (Carrier::cases() as $carrier) {
            foreach (Compiler::compile($account, $plan, new Policy(carrier: $carrier))->writes as $write) {
                $write->setting !== null
                    || $add($write->node, $write->slot->value ?? "custom {$write->custom}", $write->after);
            }
        }
        foreach ($account->nodes as $key => $node) {
            foreach ($node->slots as $slot => $text) {
                $add((string) $key, $slot, $text);
                $add((string) $key, $slot, null);
            }
        }
        $places = [];
        $root = (string) array_search(null, $account->parents, true);
        foreach ([Setting::ClickId, Setting::AutoTags] as $setting) {
            $places[] = self::changes(
                $setting->choices($account->dialect),
                static fn (?string $text): Write => Write::setting(
                    $root,
                    $setting,
                    $account->settings->text($setting),
                    $text,
                ),
            );
        }
        foreach ($account->nodes as $key => $node) {
            foreach ($account->dialect->slots as $slot) {
                $places[] = self::changes(
                    in_array($node->level, $slot->levels, true)
                        ? $texts[$slot->kind->value === 'landing' ? "landing {$key}" : $slot->kind->value] ?? []
                        : [],
                    static fn (?string $text): Write => Write::slot(
                        (string) $key,
                        $slot->kind,
                        $node->slots[$slot->kind->value] ?? null,
                        $text,
                    ),
                );
            }
            $hasCustoms = in_array($node->level, $account->dialect->customParameters->levels ?? [], true);
            foreach ($hasCustoms ? $texts : [] as $place => $values) {
                if (str_starts_with($place, 'custom ')) {
                    $name = substr($place, 7);
                    $places[] = self::changes(
                        $values,
                        static fn (?string $text): Write => Write::custom(
                            (string) $key,
                            $name,
                            $node->custom[$name] ?? null,
                            $text,
                        ),
                    );
                }
            }
        }

        return array_values(array_filter($places));
    }

    /**
     * @param array<string|null> $texts
     * @param \Closure(?string): Write $write
     * @return list<Write>
     */
    private static function changes(array $texts, \Closure $write): array
    {
        return array_values(
            array_filter(
                array_map($write, array_values($texts)),
                static fn (Write $w): bool => $w->before !== $w->after,
            ),
        );
    }

    /** @param list<Write> $writes */
    private static function applied(Account $account, array $writes): Account
    {
        return Write::applied($account, $writes);
    }

    /** @return array<string, true> */
    private static function faults(Account $account, Plan $plan): array
    {
        $faults = [];
        foreach (Verdicts::of($account, $plan, today: new Today(self::$today ?? $account)) as $key => $verdict) {
            foreach ($verdict->counterexamples as $c) {
                $faults["{$key} {$c->code} {$c->key}"] = true;
            }
        }

        return $faults;
    }
}
