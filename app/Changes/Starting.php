<?php

namespace App\Changes;

use App\Jobs\ApplyChange;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Client;
use Illuminate\Support\Facades\DB;

/**
 * Starts a change's trial, or the rest; or goes on with what was held or stopped.
 *
 * Whether it may be started is decided with the client, the account and the change locked: no rule, plan, draft or other change of the
 * account moves in between.
 */
final class Starting
{
    /** @return string|null why it is not started; null: it is */
    public static function start(Client $client, Change $change, int $user): ?string
    {
        $why = DB::transaction(static function () use ($client, $change, $user): ?string {
            $client = Client::query()->whereKey($client->id)->sharedLock()->firstOrFail();
            Account::query()->whereKey($change->account_id)->lockForUpdate()->first();
            $change = $change->locked();

            return self::forbid($client, $change) ?? self::begin($change, $user);
        }, 5);
        if ($why === null) {
            ApplyChange::dispatch($change->id);
        }

        return $why;
    }

    private static function begin(Change $change, int $user): ?string
    {
        $change->move([$change->status], $change->stage === 'trial' ? ChangeStatus::Trying : ChangeStatus::Applying, [
            'problem' => null, 'applied_by' => $user, 'applied_at' => now(), 'finished_at' => null, 'checked' => false, 'worker' => null, 'worker_until' => null, 'begun' => 0,
        ]);
        if ($change->takes_back !== null) {
            Change::query()->whereKey($change->takes_back)->whereIn('status', ChangeStatus::underWay())->update(['status' => ChangeStatus::Stopped, 'problem' => "It is being taken back by change {$change->id}."]);
        }
        $change->writes()->reorder()->whereIn('state', ['failed', 'differs', 'left'])->update(['state' => 'waiting', 'problem' => null, 'batch' => null, 'turn' => DB::raw('turn + 1')]);

        return null;
    }

    private static function forbid(Client $client, Change $change): ?string
    {
        return match (true) {
            $change->status === ChangeStatus::Ready && $client->plan()?->revision !== $change->plan_revision => 'The plan has changed since this change was worked out. Work it out again.',
            $change->status === ChangeStatus::Ready && $client->needs_approval && $change->approved_by === null => "{$client->name} wants another person’s approval before anything is written.",
            $change->status === ChangeStatus::Ready && ! $change->writes()->exists() => 'There is nothing to write.',
            $change->status->isRunning() => 'This change is being applied already. It is not started twice.',
            $change->status === ChangeStatus::Done => 'This change has been applied. Nothing is left to do.',
            ! in_array($change->status, ChangeStatus::mayStart(), true) => "A change that is {$change->status->value} can't be applied.",
            default => Overlaps::forbid($change),
        };
    }
}
