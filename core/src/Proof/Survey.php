<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\TemplateReader;

/**
 * Goes through an account ad by ad and decides for each whether it keeps the plan.
 *
 * The ads are handed in one at a time and not kept: only what stands above them need be in memory. Time grows with the number of
 * different texts, and for each ad only by looking up what it is like.
 */
final class Survey
{
    private const MOST_KEPT = 50_000;

    /** @var array<string, Above> by parent */
    private array $above = [];

    /** @var array<string, Alike> by the texts that count */
    private array $alike = [];

    /** @var array<string, Broken> by key, code and what alike ads have in common */
    private array $broken = [];

    private readonly ?Prover $prover;

    private readonly TemplateReader $reader;

    /** @var array<string, int> ads by state */
    private array $states = [];

    /** @param Account $wide what stands above the ads; ads in it are not looked at */
    public function __construct(private readonly Account $wide, ?Plan $plan, private readonly ?Notes $notes = null)
    {
        $this->reader = new TemplateReader($wide->dialect);
        $this->prover = $plan === null ? null : new Prover($wide->dialect, $wide->settings, $wide->hops, $plan, $this->reader);
    }

    /**
     * The next ad.
     *
     * @param string|null $parent the key of the node it stands under; null: it stands alone
     * @return Verdict|null null without a plan
     */
    public function ad(Node $ad, ?string $parent): ?Verdict
    {
        $above = $this->above[$parent ?? ''] ??= new Above($this->wide->pathTo((string) $parent));
        $own = $ad->slots === [] && $ad->custom === [] ? '' : serialize([$ad->slots, $ad->custom]);
        $this->notes?->ad($ad, $above, $own);
        if ($this->prover === null) {
            return null;
        }
        $key = $above->texts."\0\0".$own;
        $verdict = ($this->alike[$key] ?? $this->newAlike($key, $ad, $above))->verdict($above->sentOf($ad), $above->knownOf($ad));
        $this->states[$verdict->state->value] = ($this->states[$verdict->state->value] ?? 0) + 1;
        foreach ($verdict->counterexamples as $example) {
            $id = "{$example->code} {$example->key} {$example->reason}";
            if (! isset($this->broken[$id]) && count($this->broken) >= self::MOST_KEPT) {
                $id = "{$example->code} {$example->key}";
            }
            $broken = $this->broken[$id] ??= new Broken($ad, $example);
            $broken->ads++;
        }

        return $verdict;
    }

    /** @return list<Broken> each way in which the plan is broken, the commonest first */
    public function counterexamples(): array
    {
        $broken = array_values($this->broken);
        usort($broken, static fn (Broken $a, Broken $b): int => $b->ads <=> $a->ads);

        return $broken;
    }

    /** @return array<string, int> ads by state */
    public function states(): array
    {
        return $this->states;
    }

    private function newAlike(string $key, Node $ad, Above $above): Alike
    {
        if (count($this->alike) >= self::MOST_KEPT) {
            $this->alike = [];
        }
        $prover = $this->prover ?? throw new \LogicException('only asked with a plan');

        return $this->alike[$key] = new Alike($prover, $prover->route($above->pathTo($ad)), $above->type);
    }
}
