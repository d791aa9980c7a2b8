<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Compile\Compiled;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Unmet;
use Vestigon\Core\Compile\Verdicts;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Harm;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\Today;

/**
 * Compiles one account and holds what comes out against all that must: each kind of fault with what shows it.
 *
 * Clicks are made ad by ad, context by context, by Prover and BruteHarm: neither knows how the compiler shares its work
 * among ads that are alike.
 */
final class CompilationTrial
{
    public const KINDS = ['wrong value', 'harm', 'writes again', 'limit broken', 'own error', 'could be given'];

    public readonly Compiled $compiled;

    public readonly Account $after;

    public function __construct(
        public readonly Account $account,
        public readonly Plan $plan,
        ?Compiled $compiled = null,
    ) {
        $this->compiled = $compiled ?? Compiler::compile($account, $plan);
        $this->after = Write::applied($account, $this->compiled->writes);
    }

    /**
     * @param int $number of the account in its run: the same seed and number give the same account, whatever ran before
     * @param bool $varied has the plan variants?
     */
    public static function random(int $seed, int $number, ?Dialect $dialect = null, bool $varied = false): self
    {
        mt_srand(crc32("{$seed} {$number}"));
        $dialect ??= RandomDialects::dialect();
        $plan = RandomAccounts::plan();

        $account = RandomAccounts::account($dialect, mt_rand(0, 1) === 1 ? $plan : null);

        return new self($account, $varied ? RandomAccounts::varied($plan, $account) : $plan);
    }

    /**
     * @param bool $searches is it tried by brute force whether what is unmet could be given?
     * @return array<string, list<string>> kind of fault → what shows it
     */
    public function faults(bool $searches = false): array
    {
        return array_filter([
            'wrong value' => $this->untold(),
            'harm' => [...$this->provenHarm(), ...BruteHarm::in($this->account, $this->after, $this->plan)],
            'writes again' => array_map(self::told(...), Compiler::compile($this->after, $this->plan)->writes),
            'limit broken' => $this->beyondLimits(),
            'own error' => $this->ownErrors(),
            'could be given' => $searches
                ? GivableSearch::among($this->compiled->unmet, $this->account, $this->after, $this->plan)
                : [],
        ]);
    }

    /** @return list<string> values that are not the plan's, and no word of it */
    private function untold(): array
    {
        $told = [];
        foreach ($this->compiled->unmet as $unmet) {
            $told["{$unmet->node} {$unmet->key}"] = true;
        }
        $prover = Prover::for($this->after, $this->plan);
        $untold = [];
        foreach ($this->after->ads() as $key => $ad) {
            foreach ($prover->verdict($ad)->counterexamples as $c) {
                if (! isset($told["{$key} {$c->key}"])) {
                    $untold[] = "{$key} {$c->key}: {$c->reason} {$c->url}";
                }
            }
        }

        return $untold;
    }

    /** @return list<string> */
    private function provenHarm(): array
    {
        $harm = [];
        foreach (Verdicts::of($this->after, $this->plan, today: new Today($this->account)) as $key => $verdict) {
            foreach ($verdict->counterexamples as $c) {
                if ($c->code === Harm::CODE) {
                    $harm[] = "{$key} {$c->key}: {$c->reason} {$c->url}";
                }
            }
        }

        return $harm;
    }

    /** @return list<string> texts and custom parameters that were written, and that the platform refuses */
    private function beyondLimits(): array
    {
        $refused = [];
        $rules = $this->account->dialect->customParameters;
        foreach ($this->compiled->writes as $write) {
            $node = $this->after->nodes[$write->node] ?? null;
            $slot = $write->slot === null ? null : $this->account->dialect->slot($write->slot);
            $fits =
                $write->after === null
                || match (true) {
                    $node === null => false,
                    $write->setting !== null => in_array(
                        $write->after,
                        $write->setting->choices($this->account->dialect),
                        true,
                    ),
                    $slot !== null => in_array($node->level, $slot->levels, true)
                        && mb_strlen($write->after) <= ($slot->maxLength ?? PHP_INT_MAX),
                    default => $rules !== null
                        && in_array($node->level, $rules->levels, true)
                        && count($node->custom)
                            <= max($rules->max, count($this->account->nodes[$write->node]->custom))
                        && mb_strlen($write->after) <= $rules->valueLength
                        && mb_strlen((string) $write->custom) <= $rules->nameLength,
                };
            if (! $fits) {
                $refused[] = self::told($write);
            }
        }

        return $refused;
    }

    /** @return list<string> errors that `check` finds in what was written, and not in what was there */
    private function ownErrors(): array
    {
        $unmet = array_fill_keys(array_map(static fn (Unmet $u): string => $u->key, $this->compiled->unmet), true);
        $was = ErrorsFound::in($this->account, $this->plan);
        $own = [];
        foreach (array_diff_key(ErrorsFound::in($this->after, $this->plan), $was) as $code => $findings) {
            foreach ($findings as $finding) {
                $isOurs = $finding->key === null || in_array($finding->key, $this->keysFor($finding->node), true);
                if ($isOurs && ! isset($unmet[$finding->key ?? '']) && ! isset($unmet[''])) {
                    $own[] =
                        "{$code}: {$finding->reason} "
                        .json_encode([$finding->node?->id, $finding->slot, $finding->custom, $finding->key]);
                }
            }
        }

        return $own;
    }

    /** @return list<string> the plan's keys for an element, or for all */
    private function keysFor(?Node $node): array
    {
        foreach ($this->after->nodes as $key => $other) {
            if ($node !== null && [$other->level, $other->id] === [$node->level, $node->id]) {
                $lane = $this->plan->lane($this->after->pathTo((string) $key));

                return $this->plan->in($lane->variant)->keys();
            }
        }

        return $this->plan->keys();
    }

    public static function told(Write $write): string
    {
        return json_encode(
            $write->toArray(),
            JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
        )
            ?: '';
    }

    /** @return list<string> the account, its plan, and what was written, to look at */
    public function shown(): array
    {
        $lines = [
            json_encode([
                'settings' => $this->account->settings,
                'hops' => $this->account->hops,
                'slots' => $this->account->dialect->slots,
                'assembly' => $this->account->dialect->assembly,
                'syntax' => $this->account->dialect->syntax,
                'custom' => $this->account->dialect->customParameters,
                'clickId' => $this->account->dialect->clickId,
                'tags' => $this->account->dialect->autoTags,
            ])
            ?: '',
        ];
        foreach ($this->plan->parameters as $p) {
            $lines[] =
                "plan {$p->key} {$p->shape->value} "
                .($p->required ? 'required ' : '')
                .json_encode([$p->parts, $p->fallback]);
        }
        foreach ($this->account->nodes as $key => $node) {
            $lines[] =
                "{$key} < {$this->account->parents[$key]}: {$node->level} "
                .json_encode(
                    array_filter((array) $node, static fn (mixed $v): bool => $v !== [] && $v !== null),
                    JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
                );
        }
        foreach ($this->compiled->writes as $write) {
            $lines[] = '  '.self::told($write);
        }
        foreach ($this->compiled->unmet as $unmet) {
            $lines[] = "  unmet {$unmet->node} {$unmet->key}: {$unmet->reason}";
        }

        return $lines;
    }
}
