<?php

namespace App\Changes;

use App\Accounts\Trees;
use App\Models\Change;
use App\Models\Plan as PlanModel;
use App\Sheets\Shape;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Compile\Carrier;
use Vestigon\Core\Compile\Existing;
use Vestigon\Core\Compile\InParts;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Compile\Switches;
use Vestigon\Core\Compile\WholeAccount;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Shape as ValueShape;
use Vestigon\Core\Trace\Settings;

/** What a change is to be worked out from. */
final readonly class Brief
{
    private function __construct(public Change $change, public Plan $plan, public bool $byHand) {}

    public static function of(Change $change): self
    {
        return new self(
            $change,
            PlanModel::query()
                ->where(['client_id' => $change->client_id, 'revision' => $change->plan_revision])
                ->firstOrFail()
                ->read(),
            ($change->policy['by'] ?? 'plan') === 'hand',
        );
    }

    public function cameAsSheets(): bool
    {
        return $this->change->account->link->reads_by === 'sheet';
    }

    public function policy(): Policy
    {
        return new Policy(
            Existing::from($this->change->policy['existing'] ?? ''),
            Carrier::from($this->change->policy['carrier'] ?? ''),
            $this->change->scope === null ? null : array_map(strval(...), $this->change->scope),
            $this->cameAsSheets() && ! Shape::of($this->change->account)->switches()
                ? Switches::Leave // the sheets have no column for it
                : Switches::from($this->change->policy['switches'] ?? 'may'),
        );
    }

    /** An account, where it came as sheets as far as those can write to it. */
    public function writable(Account $account): Account
    {
        return $this->cameAsSheets() && ! $this->byHand
            ? $account->on(Shape::of($this->change->account)->narrowed())
            : $account;
    }

    /** What compiles the account where it is worked out in pieces. */
    public function inParts(): InParts
    {
        return new InParts(
            new WholeAccount(
                $this->writable(Trees::wide($this->change->account)),
                $this->plan,
                fn (string $field, ValueShape $shape): bool => $this->allAdsHave($field, $shape),
            ),
            $this->plan,
            $this->policy(),
        );
    }

    private function allAdsHave(string $field, ValueShape $shape): bool
    {
        $dialect = Trees::dialect($this->change->account);
        foreach (Trees::each($this->change->account, ads: true) as $ad) {
            $alone = new Account($dialect, new Settings(), [], ['ad' => $ad], ['ad' => null]);
            if (! $alone->allHave($field, $shape->of(...))) {
                return false;
            }
        }

        return true;
    }
}
