<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;

/** What a text depends on that may stand for all of an account, whichever part of it is looked at. */
final class WholeAccount
{
    private ?Lanes $lanes = null;

    /** @var array<string, bool> by field and shape */
    private array $shaped = [];

    /** @var array<string, array<string, CustomName>> by fields, shapes and way */
    private array $names = [];

    /**
     * @param Account $account all of it; or all that stands above its ads, with some of those
     * @param \Closure(string, Shape): bool|null $ads have all its ads a field in a shape already? null: they are all
     *     in the account
     * @param array<string, CustomName> $chosen names that custom parameters have been given already, by field and shape
     */
    public function __construct(
        private readonly Account $account,
        private readonly Plan $plan,
        private readonly ?\Closure $ads = null,
        private readonly array $chosen = [],
    ) {}

    /** @param array<string, CustomName> $names */
    public function naming(array $names): self
    {
        return new self($this->account, $this->plan, $this->ads, $names);
    }

    public function planned(Plan $plan): self
    {
        return new self($this->account, $plan, $this->ads, $this->chosen);
    }

    public function lanes(): Lanes
    {
        return $this->lanes ??= new Lanes($this->account, $this->plan);
    }

    /** Have all elements a field in a shape already? */
    public function allHave(string $field, Shape $shape): bool
    {
        return $this->shaped[PlanText::id($field, $shape)] ??=
            $this->ads !== null && Fields::owner($field) === Role::Ad
                ? ($this->ads)($field, $shape)
                : $this->account->allHave($field, $shape->of(...));
    }

    /**
     * @param list<Truth> $truths
     * @return array<string, CustomName> by field and shape
     */
    public function names(array $truths, Way $way): array
    {
        return $this->names[serialize($way)] ??= CustomNames::choose(
            $this->account,
            $truths,
            $this->plan->keys(),
            $way,
            $this->chosen,
        );
    }
}
