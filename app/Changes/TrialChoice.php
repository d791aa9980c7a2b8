<?php

namespace App\Changes;

use App\Models\Account as AccountModel;
use App\Models\Node;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Trial;

/**
 * Chooses what a change is tried on first: an ad of each campaign type; or, where ads do not take the texts, the
 * smallest part of the account that does.
 */
final readonly class TrialChoice
{
    private const MOST_ADS = 3;

    /** A part of the account with more of its ads than this is no trial. */
    private const LARGEST_PART = 0.25;

    /**
     * @param list<Trial> $trials
     * @param list<array<string, mixed>> $telling samples on which a click tells most
     */
    private function __construct(public array $trials, private array $telling) {}

    public static function none(): self
    {
        return new self([], []);
    }

    /**
     * @param Account $before the samples, with all that stands above them
     * @param Account $after the same as the change will leave them
     * @param list<array<string, mixed>> $samples of the story
     */
    public static function of(AccountModel $account, Account $before, Account $after, array $samples): self
    {
        $alone = $wider = [];
        $telling = self::telling($samples);
        foreach ($telling as $sample) {
            $trial = Trial::on((string) $sample['node'], $before, $after);
            if ($trial?->isOnAdAlone()) {
                $alone[$sample['type'] ?? ''] ??= $trial;
            } elseif ($trial !== null) {
                $wider[] = $trial;
            }
        }

        return new self(
            $alone === []
                ? self::smallest($account, $wider)
                : array_slice(array_values($alone), 0, self::MOST_ADS),
            $telling,
        );
    }

    /** @return list<string> the elements that it writes to */
    public function nodes(): array
    {
        return array_merge(...array_map(static fn (Trial $t): array => $t->nodes, $this->trials));
    }

    /**
     * @param int $writes so many are the trial's
     * @param int $ads of the account
     * @return array<string, mixed> what the trial is
     */
    public function told(Account $after, int $writes, int $ads): array
    {
        $alone = $this->trials !== [] && $this->trials[0]->isOnAdAlone();

        return [
            'ads' => $this->trials === []
                ? array_map(
                    static fn (array $s): array => ['node' => $s['node'], 'name' => $s['name']],
                    array_slice($this->telling, 0, self::MOST_ADS),
                )
                : array_map(
                    static fn (Trial $t): array => ['node' => (int) $t->ad, 'name' => $after->nodes[$t->ad]->name],
                    $this->trials,
                ),
            'writes' => $writes,
            'touches' => match (true) {
                $this->trials === [] => $ads, // nothing but what the account switches is tried: it touches every ad
                $alone => count($this->trials),
                default => self::adsBelow($this->trials[0]),
            },
            'alone' => $alone,
            'asIf' => array_filter($this->trials, static fn (Trial $t): bool => $t->asIf !== []) !== [],
        ];
    }

    /**
     * @param list<array<string, mixed>> $samples
     * @return list<array<string, mixed>> those on which a click tells most: what arrives moves, as the plan has it if
     *     that can be
     */
    public static function telling(array $samples): array
    {
        $moved = array_filter(
            $samples,
            static fn (array $s): bool => $s['before']['arrival'] !== $s['after']['arrival'],
        );

        return array_values(
            array_filter($moved, static fn (array $s): bool => $s['after']['state'] === 'proven') ?: $moved,
        );
    }

    /**
     * @param list<Trial> $trials
     * @return list<Trial> the one that touches the fewest ads, if they are few enough
     */
    private static function smallest(AccountModel $account, array $trials): array
    {
        usort($trials, static fn (Trial $a, Trial $b): int => self::adsBelow($a) <=> self::adsBelow($b));
        $ads = (int) $account->nodes()->whereNull('parent_id')->sum('ads');

        return $trials !== [] && self::adsBelow($trials[0]) <= max(1, self::LARGEST_PART * $ads)
            ? [$trials[0]]
            : [];
    }

    private static function adsBelow(Trial $trial): int
    {
        return Node::query()->findOrFail((int) $trial->nodes[0])->ads;
    }
}
