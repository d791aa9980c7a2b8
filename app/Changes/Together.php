<?php

namespace App\Changes;

use App\Accounts\Trees;
use App\Jobs\DraftChange;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Client;
use App\Models\Plan;
use App\Models\User;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/**
 * Changes of several accounts that were drafted together: each goes its own way, and a person can go on with all of
 * them at once.
 */
final class Together
{
    /** @return Collection<int, Account> those in which not every ad keeps the plan */
    public static function outOfLine(Client $client, Plan $plan): Collection
    {
        return $client
            ->accounts()
            ->where(
                static fn ($q) => $q
                    ->where('plan_revision', '<>', $plan->revision)
                    ->orWhereNull('plan_revision')
                    ->orWhereExists(
                        static fn ($n) => $n
                            ->from('nodes')
                            ->whereColumn('account_id', 'accounts.id')
                            ->whereNull('parent_id')
                            ->whereNull('gone_at')
                            ->whereColumn('proven', '<', 'ads'),
                    ),
            )
            ->orderBy('name')
            ->get();
    }

    /**
     * @param Collection<int, Account> $accounts
     * @param array<string, mixed> $as what the changes have in common
     * @return int the first of them
     */
    public static function draft(Client $client, Collection $accounts, array $as): int
    {
        $changes = DB::transaction(static function () use ($client, $accounts, $as): Collection {
            $changes = $accounts->map(
                static fn (Account $a): Change => $client->changes()->create([...$as, 'account_id' => $a->id]),
            );
            Change::query()
                ->whereKey($changes->modelKeys())
                ->update(['together' => $changes->firstOrFail()->id]);

            return $changes;
        });
        foreach ($changes as $change) {
            DraftChange::dispatch($change->id);
        }

        return $changes->firstOrFail()->id;
    }

    /** @return list<array<string, mixed>> a change and those drafted with it; none if it stands alone */
    public static function tell(Change $change): array
    {
        return self::all($change)
            ->map(
                static fn (Change $c): array => [
                    'id' => $c->id,
                    'account' => $c->account->name,
                    'platform' => Trees::dialect($c->account)->title,
                    'status' => $c->status->value,
                    'writes' => $c->writes_count,
                ],
            )
            ->values()
            ->all();
    }

    /**
     * Goes on with each that waits for nothing but a start: those worked out, and those whose trial went well.
     *
     * @return array{started: int, waiting: list<array{id: int, account: string, why: string}>}
     */
    public static function goOn(Client $client, Change $change, User $user): array
    {
        $started = 0;
        $waiting = [];
        foreach (
            self::all($change)
                ->whereIn('status', [ChangeStatus::Ready, ChangeStatus::Tried])
                ->where('writes_count', '>', 0) as $c
        ) {
            $why =
                $c->status === ChangeStatus::Tried && ! ($c->trial['ok'] ?? false)
                    ? 'its trial did not go as it should'
                    : Starting::start($client, $c, $user)?->why;
            if ($why === null) {
                $started++;
            } else {
                $waiting[] = ['id' => $c->id, 'account' => $c->account->name, 'why' => $why];
            }
        }

        return ['started' => $started, 'waiting' => $waiting];
    }

    /** @return Collection<int, Change> */
    private static function all(Change $change): Collection
    {
        return $change->together === null
            ? new Collection()
            : Change::query()
                ->where('together', $change->together)
                ->with('account')
                ->withCount('writes')
                ->orderBy('id')
                ->get();
    }
}
