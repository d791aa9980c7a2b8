<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\Lane;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Settings;
use Vestigon\Core\Trace\Trace;

/**
 * Decides for one ad by itself whether every click it can get keeps the plan. For all ads of an account, see Survey.
 */
final class Prover
{
    /** @var array<string, Truth> by lane */
    private array $truths = [];

    /** @var array<string, Judge> by lane */
    private array $judges = [];

    /** All that the plan, the platform and the hops say, in one text. */
    public readonly string $agreement;

    /** @param list<Hop> $hops */
    public function __construct(
        private readonly Dialect $dialect,
        private readonly Settings $settings,
        private readonly array $hops,
        private readonly Plan $plan,
        private readonly TemplateReader $reader,
        private readonly bool $keepsKeys = false,
    ) {
        $this->agreement = hash('sha256', serialize([$dialect, $settings, $hops, $plan]));
    }

    public static function for(Account $account, Plan $plan): self
    {
        return new self(
            $account->dialect,
            $account->settings,
            $account->hops,
            $plan,
            new TemplateReader($account->dialect),
        );
    }

    /** What is true of the clicks of an ad. */
    public function truthOf(Path $ad): Truth
    {
        return $this->truth($this->plan->lane($ad));
    }

    public function truth(Lane $lane): Truth
    {
        return $this->truths[$lane->id] ??= Truth::of(
            $this->plan,
            $this->dialect,
            $lane,
            static fn (): bool => false,
        );
    }

    public function route(Path $ad): Route
    {
        return Route::of($ad, $this->settings, $this->hops, $this->reader);
    }

    /** The route of an ad as it is, in an account that may be switched otherwise yet. */
    public function routeToday(Path $ad, Settings $settings): Route
    {
        return Route::of($ad, $settings, $this->hops, $this->reader);
    }

    public function verdict(Path $ad): Verdict
    {
        return $this->verdictOf(
            $this->route($ad),
            $this->plan->lane($ad),
            $ad->fields($this->dialect->namesFreeze),
            $ad->fields(false),
        );
    }

    /**
     * @param array<string, string> $sent what the platform knows of the ad, by field
     * @param array<string, string> $known what is true of the ad, by field; differs in names that are frozen
     * @param \Closure(Trace): void|null $watch sees every click
     * @param Route|null $today the same ad as it is, where it is to be harmed in nothing
     */
    public function verdictOf(
        Route $route,
        Lane $lane,
        array $sent,
        array $known,
        ?\Closure $watch = null,
        ?Route $today = null,
    ): Verdict {
        $truth = $this->truth($lane);
        $judge = $this->judges[$lane->id] ??= new Judge($this->dialect, $this->plan, $truth);
        $found = [];
        $anyKey = false;
        $harm =
            $today === null
                ? null
                : new Harm(
                    $truth,
                    $this->keepsKeys,
                    $this->plan->clickIdRequired ? $this->dialect->clickId?->parameter : null,
                );
        $contexts = Contexts::all(
            [...$route->fields(), ...$truth->fields(), ...$today?->fields() ?? []],
            $this->dialect,
            $lane->type,
        );
        foreach ($contexts as $context) {
            $click = $context + $sent;
            $trace = $route->trace($click);
            $watch && $watch($trace);
            $faults = $judge->faults($trace, $context + $known, $route->page($click));
            if ($harm !== null) {
                $was = $today->trace($click);
                $watch && $watch($was);
                array_push($faults, ...$harm->of($was, $trace, $today->page($click), $faults));
            }
            foreach ($faults as $flaw) {
                $found["{$flaw->code} {$flaw->key}"] ??= Counterexample::of($flaw, $context, $trace->clickUrl);
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
