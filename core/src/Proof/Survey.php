<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\Distinct;
use Vestigon\Core\Template\TemplateReader;

/**
 * Goes through an account ad by ad: decides for each whether it keeps the plan, and collects the findings.
 *
 * The ads are handed in one at a time and not kept: only what stands above them need be in memory. Time grows with the number of
 * different texts, and for each ad only by looking up what it is like.
 */
final class Survey
{
    private const MOST_KEPT = 50_000;

    /** @var array<string, Above> by parent */
    private array $above = [];

    /** @var array<string, AboveToday> by parent */
    private array $aboveToday = [];

    /** @var array<string, array<string, AdKind>> by the texts above and its own */
    private array $kinds = [];

    private int $kept = 0;

    private readonly SharedVerdicts $shares;

    private readonly ?Prover $prover;

    private readonly ?Notes $notes;

    /**
     * @param Account $wide what stands above the ads; ads in it are not looked at
     * @param RuleBook|null $rules null: no findings are wanted
     * @param Today|null $today nothing that arrives there and is not the plan's may be lost; null: that is not asked
     */
    public function __construct(private readonly Account $wide, ?Plan $plan, ?RuleBook $rules = null, private readonly ?Today $today = null)
    {
        $reader = new TemplateReader($wide->dialect);
        $this->shares = new SharedVerdicts;
        $this->prover = $plan === null ? null : new Prover($wide->dialect, $wide->settings, $wide->hops, $plan, $reader, $today->keepsKeys ?? false);
        $this->notes = $rules === null ? null : new Notes($wide, $rules, $plan, $reader);
    }

    /**
     * The next ad.
     *
     * @param string|null $parent the key of the node it stands under; null: it stands alone
     * @param Node|null $was the ad as it is today, where that is asked
     * @return Verdict|null null without a plan
     */
    public function ad(Node $ad, ?string $parent, ?Node $was = null): ?Verdict
    {
        if ($this->kept + $this->shares->kept > self::MOST_KEPT) {
            $this->flush();
        }
        $above = $this->above[$parent ?? ''] ??= new Above($this->wide->dialect, $parent === null ? null : $this->wide->pathTo($parent));
        $own = $ad->saidInAll();
        $texts = $above->texts;
        $before = null;
        if ($this->today !== null && $was !== null) {
            $before = $this->aboveToday[$parent ?? ''] ??= $this->aboveToday($parent, $above);
            if ($was === $ad && ! $before->moves) {
                $before = null; // nothing is written that counts for it
            } else {
                $texts = $before->texts;
                $own = $was === $ad ? $own : Distinct::of($own, $was->saidInAll());
            }
        }
        $kind = $this->kinds[$texts][$own] ?? $this->newKind($texts, $own, $ad, $above, $before?->above, $was);
        if ($this->notes !== null) {
            $names = $kind->names ? $above->names : '';
            if (! isset($kind->counts[$names]) || ($ad->publishedName !== null && $kind->counts[$names] > 0)) {
                $this->notes->kind($kind, $names, $ad, $this->notes->standing($above->pathTo($ad)));
            }
            $kind->counts[$names]++;
            $this->notes->words($ad, $above);
        }
        if ($kind->alike === null) {
            return null;
        }
        $share = $kind->alike->share($ad, $above);
        $share->ads++;

        return $share->verdict;
    }

    private function aboveToday(?string $parent, Above $above): AboveToday
    {
        $today = new Above($this->wide->dialect, $parent === null ? null : $this->today?->account->pathTo($parent));

        return new AboveToday($today, $today->said !== $above->said || ! ($this->today?->account->settings->is($this->wide->settings) ?? true), Distinct::of($above->texts, $today->texts));
    }

    /** @return list<Broken> each way in which the plan is broken, the commonest first */
    public function counterexamples(): array
    {
        $this->flush();

        return $this->shares->broken();
    }

    /** @return list<Tally> the findings, the worst first, then the commonest */
    public function findings(): array
    {
        $this->flush();

        return $this->notes?->all() ?? [];
    }

    /** @return array<string, int> ads by state */
    public function states(): array
    {
        $this->flush();

        return $this->shares->states();
    }

    private function newKind(string $texts, string $own, Node $ad, Above $above, ?Above $before, ?Node $was): AdKind
    {
        $this->kept++;
        $path = $above->pathTo($ad);
        $standing = $this->notes?->standing($path);
        $alike = $this->prover === null ? null : new KindProof($this->prover, $this->prover->route($path), $above->type, $this->wide->dialect->namesFreeze, $this->shares, $above->said.$before?->said.$own, $before === null || $was === null ? null : $this->prover->routeToday($before->pathTo($was), $this->today->account->settings ?? $this->wide->settings));

        $kind = new AdKind($alike, $standing !== null && $this->notes->dependOnNames($standing));
        if ($standing !== null) {
            $this->notes->kind($kind, $kind->names ? $above->names : '', $ad, $standing);
        }

        return $this->kinds[$texts][$own] = $kind;
    }

    /** Hands the counts over and begins anew: what is met again is looked at again. */
    private function flush(): void
    {
        foreach ($this->notes === null ? [] : $this->kinds as $kinds) {
            foreach ($kinds as $kind) {
                $this->notes?->count($kind);
            }
        }
        $this->shares->addUp();
        [$this->kinds, $this->kept] = [[], 0];
    }
}
