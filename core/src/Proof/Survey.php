<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\Distinct;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Texts;

/**
 * Goes through an account ad by ad: decides for each whether it keeps the plan, and collects the findings.
 *
 * The ads are handed in one at a time and not kept: only what stands above them need be in memory. Time grows with the
 * number of different texts, and for each ad only by looking up what it is like.
 */
final class Survey
{
    private const MOST_KEPT = 10_000;

    /** @var array<string, Above> by parent */
    private array $above = [];

    /** @var array<string, AboveToday> by parent */
    private array $aboveToday = [];

    /** @var array<string, array<string, AdKind>> by the texts above and its own */
    private array $kinds = [];

    /** @var array<string, Looks> by id */
    private array $looks = [];

    /** @var list<AlikeAds> that were not added up yet */
    private array $alike = [];

    private readonly TemplateReader $reader;

    private readonly Totals $totals;

    private readonly ?Prover $prover;

    private readonly ?Notes $notes;

    /**
     * @param Account $wide what stands above the ads; ads in it are not looked at
     * @param RuleBook|null $rules null: no findings are wanted
     * @param Today|null $today nothing that arrives there and is not the plan's may be lost; null: that is not asked
     */
    public function __construct(
        private readonly Account $wide,
        private readonly ?Plan $plan,
        ?RuleBook $rules = null,
        private readonly ?Today $today = null,
    ) {
        $this->reader = $reader = new TemplateReader($wide->dialect);
        $this->totals = new Totals();
        $this->prover =
            $plan === null
                ? null
                : new Prover(
                    $wide->dialect,
                    $wide->settings,
                    $wide->hops,
                    $plan,
                    $reader,
                    $today->keepsKeys ?? false,
                );
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
        $above = $this->above[$parent ?? ''] ??= new Above(
            $this->wide->dialect,
            $parent === null ? null : $this->wide->pathTo($parent),
            $this->plan,
        );
        $own = $ad->saidInAll();
        // a finding tells of elements, so those count that say a text; what is true does so whoever says it
        $texts = $this->notes === null ? $above->says : $above->texts;
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
        $looks = $kind->looks($ad, $above);
        $alike = $kind->alike[$looks] ?? $this->alike($kind, $looks, $ad, $above);
        $alike->ads++;
        if ($ad->publishedName !== null && $alike->shown !== null && $alike->shown->by !== $ad) {
            $this->notes?->frozen($above->pathTo($ad));
        }
        if ($this->notes?->readWords) {
            $this->notes->words($ad, $above);
        }

        return $alike->verdict;
    }

    private function aboveToday(?string $parent, Above $above): AboveToday
    {
        $path = $parent === null ? null : $this->today?->account->pathTo($parent);
        $today = $path !== null && $above->isOf($path)
            ? $above
            : new Above($this->wide->dialect, $path, $this->plan);

        return new AboveToday(
            $today,
            $today->said !== $above->said
                || ! ($this->today?->account->settings->is($this->wide->settings) ?? true),
            $this->notes === null
                ? Distinct::of($above->says, $today->says)
                : Distinct::of($above->texts, $today->texts),
        );
    }

    /** @return list<Broken> each way in which the plan is broken, the commonest first */
    public function counterexamples(): array
    {
        $this->addUp();

        return $this->totals->all();
    }

    /** @return list<Tally> the findings, the worst first, then the commonest */
    public function findings(): array
    {
        $this->addUp();

        return $this->notes?->all() ?? [];
    }

    /** @return array<string, int> ads by state */
    public function states(): array
    {
        $this->addUp();

        return $this->totals->states();
    }

    /** What has been found so far, to be handed to the survey of other ads of the account, wherever that is made. */
    public function gathered(): Gathered
    {
        $this->addUp();

        return new Gathered($this->totals, $this->notes?->noted());
    }

    /** Takes over what was found of other ads of the account: as if they had been handed in here. */
    public function take(Gathered $of): void
    {
        $this->addUp();
        $this->totals->take($of->totals);
        if ($of->noted !== null) {
            $this->notes?->take($of->noted);
        }
    }

    private function newKind(
        string $texts,
        string $own,
        Node $ad,
        Above $above,
        ?Above $before,
        ?Node $was,
    ): AdKind {
        $path = $above->pathTo($ad);
        $standing = $this->notes?->standing($path);
        $route = Route::with(
            $path,
            $standing->texts ?? Texts::of($path, $this->reader),
            $this->wide->settings,
            $this->wide->hops,
        );
        $proof =
            $this->prover === null
                ? null
                : new KindProof(
                    $this->prover,
                    $route,
                    $above->lane,
                    $this->wide->dialect->namesFreeze,
                    $above->said.$before?->said.$own,
                    $before === null || $was === null
                        ? null
                        : $this->prover->routeToday(
                            $before->pathTo($was),
                            $this->today->account->settings ?? $this->wide->settings,
                        ),
                );
        $looks = $proof->looks ?? new Looks([], [], false);
        // few are many kinds', and one that is at hand is found the fastest
        $looks = $this->looks[$looks->id] ??= $looks;
        $kind = new AdKind($route, $proof, $looks, $standing !== null && $this->notes->dependOnNames($standing));
        if ($standing !== null) {
            $kind->shown[$kind->names ? $above->names : ''] = $this->notes->shown($route, $ad, $standing);
        }

        return $this->kinds[$texts][$own] = $kind;
    }

    /**
     * What is true of the ad, of which no other of its looks was met before; where looks do not decide, of one of its
     * values.
     */
    private function alike(AdKind $kind, string $looks, Node $ad, Above $above): AlikeAds
    {
        $closer = $kind->closer[$looks] ?? null;
        if ($closer === null) {
            $verdict = $kind->proof?->ofLooks($ad, $above);
            if (! ($verdict instanceof Looks)) {
                return $this->newAlike($kind, $looks, $ad, $above, $verdict);
            }
            $kind->closer[$looks] = $closer = $verdict;
        }
        $values = $looks.$above->looks($closer).$closer->ofAd($ad);

        return $kind->alike[$values]
            ?? $this->newAlike($kind, $values, $ad, $above, $kind->proof?->ofValues($ad, $above));
    }

    private function newAlike(AdKind $kind, string $looks, Node $ad, Above $above, ?Verdict $verdict): AlikeAds
    {
        if (count($this->alike) >= self::MOST_KEPT) {
            $this->addUp();
        }
        $shown =
            $this->notes === null
                ? null
                : ($kind->shown[$kind->names ? $above->names : ''] ??= $this->notes->shown(
                    $kind->route,
                    $ad,
                    $this->notes->standing($above->pathTo($ad)),
                ));

        return $this->alike[] = $kind->alike[$looks] = new AlikeAds($ad, $verdict, $shown);
    }

    /** Adds up and begins anew: what is met again is looked at again. */
    private function addUp(): void
    {
        foreach ($this->alike as $alike) {
            $this->totals->add($alike);
            if ($alike->shown !== null) {
                $this->notes?->add($alike->shown, $alike->ads);
            }
        }
        [$this->kinds, $this->alike] = [[], []];
    }
}
