<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Today;
use Vestigon\Core\Trace\Settings;

/** What a compilation works on: which part of which account, the plan, and how it is to go about it. */
final readonly class Task
{
    public Account $account;

    public Proven $proven;

    public WholeAccount $whole;

    /**
     * @param WholeAccount|null $wider where the account is a part of a larger one: that; null: it is a whole
     * @param Way|null $way by which all ads are served; null: that is to be found
     */
    public function __construct(
        public Scope $scope,
        public Plan $plan,
        public Policy $policy,
        public Kept $kept,
        public Proving $proving,
        public Progress $progress = new Progress(),
        private ?WholeAccount $wider = null,
        public ?Way $way = null,
    ) {
        $this->account = $scope->account;
        $this->whole = $wider ?? new WholeAccount($this->account, $plan);
        $this->proven = new Proven($scope, $plan, $this->today(), $proving);
    }

    public static function of(Account $account, Plan $plan, Policy $policy, Progress $progress): self
    {
        $kept = Kept::in($account, $plan, $policy->existing === Existing::Keep);

        return new self(
            $policy->within === null ? Scope::whole($account) : Scope::within($account, $policy->within),
            $plan,
            $policy,
            $kept,
            new Proving($account),
            $progress,
        );
    }

    /** Of a large account a part, after what has been decided above it. */
    public static function within(
        Account $part,
        Decided $decided,
        WholeAccount $whole,
        Plan $plan,
        Policy $policy,
        Progress $progress,
    ): self {
        return new self(
            Scope::within(Write::applied($part, $decided->writesIn($part)), $policy->within ?? [])->since($part),
            $plan,
            $policy,
            Kept::in($part, $plan, $policy->existing === Existing::Keep),
            new Proving($part),
            $progress,
            $whole->naming($decided->names),
            $decided->way,
        );
    }

    /** The same on another part of the account, or on the account as it would be; nobody is told how far it is. */
    public function on(Scope $scope): self
    {
        return new self(
            $scope,
            $this->plan,
            $this->policy,
            $this->kept,
            $this->proving,
            wider: $this->wider,
            way: $this->way,
        );
    }

    /** The same with the account's settings switched. */
    public function switched(Settings $settings): self
    {
        return new self(
            $this->scope->switched($settings),
            $this->plan,
            $this->policy,
            $this->kept,
            $this->proving,
            $this->progress,
            $this->wider,
            $this->way,
        );
    }

    /** The same for another plan, as the account is switched. */
    public function planned(Plan $plan): self
    {
        return new self(
            $this->scope,
            $plan,
            $this->policy->switching(Switches::Leave),
            $this->kept,
            new Proving($this->account),
            wider: $this->wider?->planned($plan),
        );
    }

    /** Do plan keys that arrive already stay as they are? */
    public function keeps(): bool
    {
        return $this->policy->existing === Existing::Keep;
    }

    /** What may be lost in nothing. */
    public function today(): Today
    {
        return new Today($this->scope->today(), $this->keeps());
    }
}
