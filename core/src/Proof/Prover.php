<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Shape;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;

/** Decides for an ad whether every click it can get keeps the plan. */
final class Prover
{
    /** @var array<string, Truth> by campaign type */
    private array $truths = [];

    private readonly TemplateReader $reader;

    public function __construct(private readonly Account $account, private readonly Plan $plan)
    {
        $this->reader = new TemplateReader($account->dialect);
    }

    public function truth(?string $campaignType): Truth
    {
        return $this->truths[$campaignType ?? ''] ??= Truth::of(
            $this->plan,
            $this->account->dialect,
            $campaignType,
            fn (string $field, Shape $shape): bool => $this->account->allHave($field, $shape->of(...)),
        );
    }

    public function verdict(Path $ad): Verdict
    {
        $dialect = $this->account->dialect;
        $truth = $this->truth($ad->campaignType());
        $route = Route::of($ad, $this->account->settings, $this->account->hops, $this->reader);
        $landing = ($dialect->slot(SlotKind::Landing)->tokens ?? false) ? null : $ad->last()->slot(SlotKind::Landing);
        $judge = Judge::by($this->plan, $truth, $dialect->clickId?->parameter, $landing);
        $known = $ad->fields(false);
        $found = [];
        $anyKey = false;
        $contexts = Contexts::all([...$route->fields(), ...$truth->fields()], $dialect, $ad->campaignType());
        foreach ($contexts as $context) {
            $trace = $route->trace($context);
            foreach ($judge->faults($trace, $context, $context + $known) as $fault) {
                $found["{$fault->fault->value} {$fault->key}"] ??= $fault;
            }
            $anyKey = $anyKey || array_intersect(array_column($trace->arrival, 0), $this->plan->keys()) !== [];
        }
        $state = match (true) {
            $found === [] => State::Proven,
            $anyKey => State::Broken,
            default => State::Untracked,
        };

        return new Verdict($state, array_values($found), count($contexts));
    }
}
