<?php

namespace App\Bulk;

use App\Accounts\Selection;
use App\Jobs\DraftChange;
use App\Models\Account;
use App\Models\ChangeStatus;
use App\Models\Plan;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Document\UnusableInput;

/** Drafts the change that makes an edit of many texts. */
final readonly class DraftedEdit
{
    public function __construct(private Account $account, private Plan $plan, private int $user) {}

    /**
     * @param array<string, mixed> $what see the contract's Edit
     * @return array{array<string, mixed>, int} what it does, and the change
     *
     * @throws UnusableInput
     */
    public function draft(Selection $over, array $what, string $title, string $reason): array
    {
        [$done, $change] = DB::transaction(function () use ($over, $what, $title, $reason): array {
            $change = $this->account->client
                ->changes()
                ->create([
                    'account_id' => $this->account->id,
                    'title' => $title,
                    'reason' => $reason,
                    'status' => ChangeStatus::Drafting,
                    'plan_revision' => $this->plan->revision,
                    'policy' => ['by' => 'hand'],
                    'user_id' => $this->user,
                ]);
            $done = (new Editing($this->account))->run($over, $what, $change->id);

            return $done['total'] === 0
                ? throw new UnusableInput('nothing would change, so there is nothing to draft')
                : [$done, $change->id];
        });
        DraftChange::dispatch($change)->afterCommit();

        return [$done, $change];
    }
}
