<?php

namespace App\Agreements;

use App\Accounts\Branches;
use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Plan;

/** Which of a client's campaigns each variant of a plan counts for. */
final readonly class InVariants
{
    /** Campaigns that are looked at, of each account. */
    private const MOST = 2000;

    private const CHUNK = 500;

    /**
     * @param array<string, int> $campaigns how many, by variant; under '' those of the plan itself
     * @param bool $whole false: an account has more than were looked at
     */
    private function __construct(public array $campaigns, public bool $whole) {}

    public static function of(Client $client, Plan $plan): self
    {
        $campaigns = array_fill_keys(['', ...array_column($plan->variants, 'id')], 0);
        $whole = true;
        foreach ($client->accounts as $account) {
            $seen = 0;
            foreach (self::each($account, $plan, null) as $variant) {
                $campaigns[$variant]++;
                $seen++;
            }
            $whole = $whole && $seen < self::MOST;
        }

        return new self($campaigns, $whole);
    }

    /** The first campaign of a type that a variant counts for; null: none of those that were looked at. */
    public static function first(Account $account, Plan $plan, string $type, string $variant): ?Node
    {
        foreach (self::each($account, $plan, $type) as $id => $counts) {
            if ($counts === $variant) {
                return Node::query()->find($id);
            }
        }

        return null;
    }

    /** @return \Generator<int, string> number of a campaign in the database → the variant that counts for it */
    private static function each(Account $account, Plan $plan, ?string $type): \Generator
    {
        $depth = Trees::dialect($account)->levelOf(Role::Campaign)->depth ?? 0;
        for ($from = 0; $from < self::MOST; $from += self::CHUNK) {
            $rows = Node::query()
                ->where(['account_id' => $account->id, 'depth' => $depth])
                ->when($type !== null, static fn ($q) => $q->where('type', $type))
                ->orderBy('position')
                ->orderBy('id')
                ->offset($from)
                ->limit(self::CHUNK)
                ->toBase()
                ->get();
            $branch = $plan->variants === [] ? null : Branches::ofRows($account, $rows);
            foreach ($rows as $row) {
                yield $row->id => $branch === null ? '' : $plan->lane($branch->path($row->id))->variant;
            }
            if ($rows->count() < self::CHUNK) {
                return;
            }
        }
    }
}
