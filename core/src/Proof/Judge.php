<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Trace\Trace;

/** Holds one arrival against the truth of its click. */
final readonly class Judge
{
    /** @var list<ClickRule> each finds one way of breaking the agreement */
    private array $rules;

    /** @var list<string> */
    private array $planKeys;

    /** @var list<string> those that the plan has on this platform */
    private array $ours;

    private ?string $clickIdKey;

    /** @var array<string, string> required keys that can't be given → why */
    private array $unmet;

    /** @var array<string, int> the order in which faults are told: the plan's */
    private array $order;

    public function __construct(private Dialect $dialect, Plan $plan, private Truth $truth)
    {
        $this->rules = RuleBook::breaking();
        $this->planKeys = $plan->keys();
        $this->ours = array_map(strval(...), array_keys($truth->choices + $truth->unmet));
        $this->order = array_flip($this->planKeys);
        $this->clickIdKey = $plan->clickIdRequired ? $dialect->clickId?->parameter : null;
        $this->unmet = array_intersect_key($truth->unmet, array_flip($truth->required));
    }

    /**
     * @param array<string, string> $fields the neutral fields of the click, names as they are now
     * @param string|null $landing the landing page: where the landing URL alone leads
     * @return list<Flaw> those that break the agreement, in the plan's order, those of the whole click last
     */
    public function faults(Trace $trace, array $fields, ?string $landing): array
    {
        $click = new Click(
            $this->dialect,
            $trace,
            $fields,
            $this->truth->values($fields),
            $this->unmet,
            $this->planKeys,
            $this->ours,
            $this->clickIdKey,
            $landing,
        );
        $faults = [];
        foreach ($this->rules as $rule) {
            foreach ($rule->check($click) as $flaw) {
                if ($flaw->breaks) {
                    $faults[] = $flaw;
                }
            }
        }
        $place = fn (Flaw $f): int => $f->key === null ? PHP_INT_MAX : $this->order[$f->key] ?? PHP_INT_MAX - 1;
        usort($faults, static fn (Flaw $a, Flaw $b): int => $place($a) <=> $place($b));

        return $faults;
    }
}
