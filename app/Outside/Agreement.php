<?php

namespace App\Outside;

use App\Accounts\Branch;
use App\Accounts\Branches;
use App\Accounts\StoredTexts;
use App\Accounts\Trees;
use App\Accounts\WhatIf;
use App\Models\Account;
use App\Models\Node;
use App\Models\OutsideChange;
use App\Models\Plan;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Url\Query;

/**
 * What changed outside, as a new agreement: keys for which the text that changed says one other value, on all ads that
 * it breaks, would be agreed like that, on its platform.
 */
final readonly class Agreement
{
    /** Ads that are looked at to see what arrives. */
    private const LOOKED = 50;

    public function __construct(private OutsideChange $change, private Plan $plan) {}

    /**
     * @return array<string, mixed> the keys that would be agreed otherwise; the plan with them; what that would do to
     *     the account's proof
     */
    public function show(): array
    {
        $account = $this->change->account;
        $plan = $this->plan->read();
        $ads = $this->ads($account);
        $branch = Branches::of($account, ...$ads);
        // of ads under several variants, those under the first one's
        $under = static fn (int $ad): ?string => $plan->variantFor($branch->path($ad))?->id;
        $of = $ads === [] ? null : $under($ads[0]);
        $keys = $this->keys($account, $branch, array_filter($ads, static fn (int $ad): bool => $under($ad) === $of));
        $document = $this->plan->document;
        if ($of === null) {
            $document['parameters'] = self::agreed($document['parameters'], $keys, $account->dialect);
        }
        foreach ($document['variants'] ?? [] as $i => $variant) {
            if ((string) $variant['id'] === $of) {
                $document['variants'][$i]['parameters'] = self::agreed(
                    $variant['parameters'],
                    $keys,
                    $account->dialect,
                );
            }
        }

        return [
            'keys' => array_values($keys),
            'platform' => Trees::dialect($account)->title,
            'revision' => $this->plan->revision,
            'document' => $document,
            'effect' => $keys === []
                ? null
                : WhatIf::of(
                    $account,
                    static fn (CoreAccount $some): Survey => new Survey(
                        $some,
                        PlanReader::read(new Cursor($document)),
                    ),
                ),
        ];
    }

    /**
     * @param list<array<string, mixed>> $parameters
     * @param array<string, array{key: string, expected: string, arrived: string}> $keys
     * @return list<array<string, mixed>>
     */
    private static function agreed(array $parameters, array $keys, string $platform): array
    {
        foreach ($parameters as $i => $parameter) {
            $arrived = $keys[$parameter['key']]['arrived'] ?? null;
            if ($arrived !== null) {
                $parameters[$i]['platforms'][$platform] = ['parts' => [['text' => $arrived]]];
            }
        }

        return $parameters;
    }

    /**
     * @param array<int> $ads
     * @return array<string, array{key: string, expected: string, arrived: string}>
     */
    private function keys(Account $account, Branch $branch, array $ads): array
    {
        $settings = StoredTexts::settings($account);
        $hops = Trees::hops($account);
        $prover = Prover::for(
            new CoreAccount(Trees::dialect($account), $settings, $hops, [], []),
            $this->plan->read(),
        );
        $found = $several = [];
        foreach ($ads as $ad) {
            foreach ($prover->verdict($branch->path($ad))->counterexamples as $c) {
                $value = $c->arrived[0] ?? '';
                if ($c->code !== 'wrong-value' || ! $this->isSaid($c->key, $value)) {
                    continue;
                }
                $found[$c->key] ??= ['key' => $c->key, 'expected' => (string) $c->expected, 'arrived' => $value];
                if ($found[$c->key]['arrived'] !== $value) {
                    $several[$c->key] = true;
                }
            }
        }

        return array_diff_key($found, $several);
    }

    /** Does the text that changed say this very value, and not by a token? */
    private function isSaid(string $key, string $value): bool
    {
        $text = (string) $this->change->after;

        return $value !== ''
            && ($this->change->kind === 'custom'
                ? $text === $value
                : in_array([$key, $value], Query::read(str_contains($text, '?') ? $text : "?{$text}"), true));
    }

    /** @return list<int> broken ads at or below the element that changed */
    private function ads(Account $account): array
    {
        $below = Branches::below($account, [$this->change->node_id]);

        return Node::query()
            ->where(['account_id' => $account->id, 'is_ad' => true, 'state' => 'broken'])
            ->where(
                fn ($q) => $q->whereKey($this->change->node_id)->orWhereIntegerInRaw('parent_id', $below),
            )
            ->orderBy('position')
            ->limit(self::LOOKED)
            ->pluck('id')
            ->all();
    }
}
