<?php

namespace App\Changes;

use App\Jobs\ApplyChange;
use App\Models\Account;
use App\Models\Change;
use App\Models\Client;
use App\Models\User;
use App\Models\WriteState;
use App\Sheets\OutSheets;
use Illuminate\Support\Facades\DB;

/**
 * Starts a change's trial, or the rest; or goes on with what was held or stopped.
 *
 * Whether it may be started is decided with the client, the account and the change locked: no rule, plan, draft or
 * other change of the account moves in between.
 */
final class Starting
{
    /**
     * @param int|null $draft the working out that the person saw
     * @return Forbidden|null why it is not started; null: it is
     */
    public static function start(Client $client, Change $change, User $user, ?int $draft = null): ?Forbidden
    {
        $why = DB::transaction(static function () use ($client, $change, $user, $draft): ?Forbidden {
            $client = Client::query()->whereKey($client->id)->sharedLock()->firstOrFail();
            Account::query()->whereKey($change->account_id)->lockForUpdate()->first();
            $change = $change->locked();
            $why =
                (new Guard($client, $change, $user))->forbids(Move::Start, $draft)
                ?? Overlaps::forbid($change)
                ?? self::hasNoColumn($change);
            if ($why === null) {
                self::begin($change, $user->id);
            }

            return $why;
        }, 5);
        if ($why === null) {
            ApplyChange::dispatch($change->id);
        }

        return $why;
    }

    /** A change that goes out as sheets needs a column for all that it writes. */
    private static function hasNoColumn(Change $change): ?Forbidden
    {
        $change->loadMissing('account.link');
        if ($change->account->link->reads_by !== 'sheet') {
            return null;
        }
        $missing = (new OutSheets($change))->missing();

        return $missing === []
            ? null
            : new Forbidden(
                422,
                "The sheets that {$change->account->name} came in have no column for "
                    .implode(', ', array_slice($missing, 0, 5))
                    .'. Bring an export in that has one, then work the change out again.',
            );
    }

    private static function begin(Change $change, int $user): void
    {
        $change->take(Move::Start, [
            'problem' => null,
            'applied_by' => $user,
            'applied_at' => now(),
            'finished_at' => null,
            'checked' => false,
            'worker' => null,
            'worker_until' => null,
            'begun' => 0,
        ]);
        if ($change->takes_back !== null) {
            Change::query()
                ->find($change->takes_back)
                ?->take(Move::GiveWay, ['problem' => "It is being taken back by change {$change->id}."]);
        }
        $change
            ->writes()
            ->reorder()
            ->whereIn('state', [WriteState::Failed, WriteState::Differs, WriteState::Left])
            ->update([
                'state' => WriteState::Waiting,
                'problem' => null,
                'batch' => null,
                'turn' => DB::raw('turn + 1'),
            ]);
    }
}
