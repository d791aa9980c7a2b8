<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Today;
use Vestigon\Core\Proof\Verdict;
use Vestigon\Core\Template\Distinct;

/**
 * Proves ads for a plan. Where an account has few of them, many ways are tried that say the same on most ads: what was
 * proven of an ad with the same texts on it and above it is not proven again. Many ads are not remembered one by one;
 * they are alike, and a survey proves those once.
 */
final class Proving
{
    private const FEW = 200;

    /** @var \WeakMap<Account, \ArrayObject<string, Verdict>> by today's account, then by ad and all that it is told by */
    private \WeakMap $known;

    private readonly bool $remembers;

    public function __construct(Account $account)
    {
        $this->known = new \WeakMap();
        $ads = 0;
        foreach ($account->adNodes() as $_) {
            if (++$ads > self::FEW) {
                break;
            }
        }
        $this->remembers = $ads <= self::FEW;
    }

    /**
     * @param Survey $survey of an account in which the ad stands
     * @param Account $account with the same elements, each under the same
     * @param \Closure(string): Node $at the elements as the survey has them
     */
    public function verdict(Survey $survey, Account $account, string $ad, \Closure $at, Today $today): Verdict
    {
        $prove = static fn (): Verdict => $survey->ad(
            $at($ad),
            $account->parents[$ad],
            $today->account->nodes[$ad],
        ) ?? throw new \LogicException('there is a plan');
        if (! $this->remembers) {
            return $prove();
        }
        $said = [
            $ad,
            ...array_map(static fn (Setting $s): ?string => $account->settings->text($s), Setting::cases()),
        ];
        foreach ($account->keysTo($ad) as $key) {
            $said[] = $at($key)->saidInAll();
        }
        $said = Distinct::of(...$said);
        $known = $this->known[$today->account] ??= new \ArrayObject();

        return $known[$said] ??= $prove();
    }
}
