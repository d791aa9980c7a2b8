<?php

declare(strict_types=1);

namespace Vestigon\Core\Proof;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Findings\Campaigns;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Inspector;
use Vestigon\Core\Findings\Path\StaleLiteral;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Findings\Spellings;
use Vestigon\Core\Findings\Standing;
use Vestigon\Core\Findings\Unused;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;

/** Collects the findings of a whole account while a survey goes through it: each kind of ad is looked at once. */
final class Notes
{
    private const MOST_KEPT = 50_000;

    /** @var array<string, Tally> by finding */
    private array $tallies = [];

    /** @var array<string, list<Tally>> what the ads of a kind show */
    private array $byKind = [];

    /** @var array<string, bool> by the texts that count: does it matter which campaign they are on? */
    private array $namesCampaigns = [];

    private readonly Inspector $inspector;

    private readonly TemplateReader $reader;

    private readonly Campaigns $campaigns;

    private readonly Spellings $spellings;

    private readonly Unused $unused;

    private bool $sawWide = false;

    public function __construct(private readonly Account $wide, RuleBook $rules, private readonly ?Plan $plan)
    {
        $this->reader = new TemplateReader($wide->dialect);
        $this->inspector = new Inspector($rules, $this->reader, $plan);
        $this->campaigns = Campaigns::of($wide);
        $this->spellings = new Spellings($this->reader, $plan);
        $this->unused = new Unused($wide);
    }

    /** @param string $own the ad's own texts, in a form that tells them apart */
    public function ad(Node $ad, Above $above, string $own): void
    {
        $frozen = $this->wide->dialect->namesFreeze && ($ad->publishedName ?? $ad->name) !== $ad->name ? $ad->id : '';
        $texts = "{$above->texts}\0\0{$own}";
        $named = ($this->namesCampaigns[$texts] ??= StaleLiteral::applies($this->standing($above->pathTo($ad)))) ? $above->campaign : '';
        $kind = "{$texts}\0\0{$above->frozen}\0\0{$frozen}\0\0{$named}";
        $found = $this->byKind[$kind] ??= $this->kind($ad, $above);
        foreach ($found as $tally) {
            $tally->count++;
        }
        if ($own !== '') {
            $this->spellings->see($ad, $own);
        }
    }

    /** @return list<Tally> the worst first, then the commonest */
    public function all(): array
    {
        $this->wide();
        foreach ([...$this->spellings->findings(), ...$this->unused->findings()] as $finding) {
            $this->tally($finding, $finding->id())->count++;
        }
        $tallies = array_values(array_filter($this->tallies, static fn (Tally $t): bool => $t->count > 0));
        $rank = ['error' => 0, 'warning' => 1, 'note' => 2];
        usort($tallies, static fn (Tally $a, Tally $b): int => [$rank[$a->finding->severity->value], $b->count] <=> [$rank[$b->finding->severity->value], $a->count]);

        return $tallies;
    }

    /** @return list<Tally> */
    private function kind(Node $ad, Above $above): array
    {
        if (count($this->byKind) >= self::MOST_KEPT) {
            [$this->byKind, $this->namesCampaigns] = [[], []];
        }
        $path = $above->pathTo($ad);
        $this->unused->used($path, $this->reader);
        $tallies = [];
        foreach ($this->inspector->node($ad, $path) as $finding) {
            // the same text on many ads is one finding
            $text = $finding->slot === null ? ($ad->custom[$finding->custom ?? ''] ?? '') : $ad->slot($finding->slot);
            $tallies[] = $this->tally($finding, "{$finding->code} {$finding->slot?->value} {$finding->custom} {$finding->at} {$text}");
        }
        foreach (Inspector::sorted($this->inspector->standing($this->standing($path))) as $finding) {
            $tallies[] = $this->tally($finding, $finding->id());
        }
        array_push($tallies, ...$this->clicks($path));

        return $tallies;
    }

    private function standing(Path $path): Standing
    {
        return new Standing($path, $this->wide->settings, $this->reader, $this->plan, $this->campaigns);
    }

    /** @return list<Tally> what a plain click of the ad shows */
    private function clicks(Path $path): array
    {
        $route = Route::of($path, $this->wide->settings, $this->wide->hops, $this->reader);
        $context = Contexts::plain($route->fields(), $path->dialect, $path->campaignType());
        $tallies = [];
        foreach ($this->inspector->click($path, $route->trace($context), $context, $this->wide->settings, $route->landing($context)) as $finding) {
            $tallies[] = $this->tally($finding->on($path->last()), "{$finding->code} {$finding->key}");
        }

        return $tallies;
    }

    /** What stands above the ads, looked at once. */
    private function wide(): void
    {
        if ($this->sawWide) {
            return;
        }
        $this->sawWide = true;
        $ads = $this->wide->dialect->levelOf(Role::Ad)?->id;
        foreach ($this->wide->nodes as $key => $node) {
            if ($node->level !== $ads && ($node->slots !== [] || $node->custom !== [])) {
                foreach ($this->inspector->node($node, $this->wide->pathTo((string) $key)) as $finding) {
                    $this->tally($finding, $finding->id())->count++;
                }
                $this->spellings->see($node, serialize($node->slots));
            }
        }
    }

    private function tally(Finding $finding, string $id): Tally
    {
        return $this->tallies[$id] ??= new Tally($finding);
    }
}
