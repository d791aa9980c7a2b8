<?php

namespace App\Accounts;

use App\Models\Account;
use App\Support\Overtaken;
use Illuminate\Support\Facades\DB;

/** Each proof of an account takes a turn; as soon as a newer one has begun, an older one keeps nothing any more. */
final readonly class ProofTurn
{
    public function __construct(public int $account, public int $number) {}

    public static function begin(Account $account): self
    {
        return DB::transaction(static function () use ($account): self {
            Account::query()->whereKey($account->id)->increment('proof_turn');

            return new self(
                $account->id,
                (int) Account::query()->whereKey($account->id)->value('proof_turn'),
            );
        }, 5);
    }

    /**
     * Keeps some of it, if no newer proof has begun; none begins meanwhile.
     *
     * @param bool $alone false: others that share this proof may keep something at the same time
     *
     * @throws Overtaken
     */
    public function during(\Closure $keep, bool $alone = true): void
    {
        DB::transaction(function () use ($keep, $alone): void {
            $account = Account::query()->whereKey($this->account)->lock($alone);
            if ((int) $account->value('proof_turn') !== $this->number) {
                throw new Overtaken();
            }
            $keep();
        }, 5);
    }
}
