<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Gathered;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Tally;

/** Several processes share the ads of an account: what comes of it is what one would have found. */
final class SharedSurveyTest extends TestCase
{
    private const ACCOUNTS = 120;

    /** @return iterable<string, array{Dialect}> */
    public static function dialects(): iterable
    {
        foreach (Shipped::all() as $id => $dialect) {
            yield $id => [$dialect];
        }
    }

    #[DataProvider('dialects')]
    public function test_parts_taken_together_say_what_the_whole_says(Dialect $dialect): void
    {
        mt_srand(crc32("shared {$dialect->id}"));
        $several = 0;
        for ($i = 0; $i < self::ACCOUNTS; $i++) {
            $plan = RandomAccounts::plan();
            $account = RandomAccounts::account($dialect, $plan);
            $ads = [];
            foreach ($account->ads() as $key => $path) {
                $ads[] = [$path->last(), $account->parents[$key]];
            }
            if (count($ads) < 2) {
                continue;
            }
            $cut = mt_rand(1, count($ads) - 1);
            $taken = self::survey($account, $plan);
            foreach ([array_slice($ads, 0, $cut), array_slice($ads, $cut)] as $part) {
                $gathered = unserialize(serialize(self::of($account, $plan, $part)->gathered()));
                self::assertInstanceOf(Gathered::class, $gathered);
                $taken->take($gathered);
            }
            $whole = self::of($account, $plan, $ads);
            self::assertSame(self::told($whole), self::told($taken), "account {$i}, cut at {$cut}");
            self::assertSame([], array_diff(self::ofClicks($whole), self::ofClicks($taken)), "account {$i}");
            $several += count($whole->findings()) > 1 ? 1 : 0;
        }
        self::assertGreaterThan(self::ACCOUNTS / 2, $several, 'there is something to be told');
    }

    /** @param list<array{Node, string|null}> $ads */
    private static function of(Account $account, Plan $plan, array $ads): Survey
    {
        $survey = self::survey($account, $plan);
        foreach ($ads as [$ad, $parent]) {
            $survey->ad($ad, $parent);
        }

        return $survey;
    }

    private static function survey(Account $account, Plan $plan): Survey
    {
        return new Survey(
            $account,
            $plan,
            RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped()),
        );
    }

    private static function told(Survey $survey): string
    {
        $told = [
            'states' => $survey->states(),
            'broken' => array_map(static fn ($b): array => $b->toArray(), $survey->counterexamples()),
            'findings' => array_map(
                static fn (Tally $t): array => $t->toArray(),
                array_values(
                    array_filter($survey->findings(), static fn (Tally $t): bool => ! $t->finding->isOfClick()),
                ),
            ),
        ];

        return json_encode($told, JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE)."\n";
    }

    /**
     * One ad of each kind is clicked for findings; in each part that is another one, and more may be seen by it.
     *
     * @return list<string>
     */
    private static function ofClicks(Survey $survey): array
    {
        $found = array_filter($survey->findings(), static fn (Tally $t): bool => $t->finding->isOfClick());

        return array_values(
            array_map(static fn (Tally $t): string => "{$t->finding->code} {$t->finding->key}", $found),
        );
    }
}
