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
use Vestigon\Core\Findings\Words;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;

/** The findings of a whole account, each with how many ads show it. */
final class Notes
{
    /** @var array<string, Tally> by finding */
    private array $tallies = [];

    private readonly Inspector $inspector;

    private readonly Campaigns $campaigns;

    private readonly Spellings $spellings;

    private readonly Unused $unused;

    private readonly Words $words;

    private bool $sawWide = false;

    public function __construct(private readonly Account $wide, RuleBook $rules, private readonly ?Plan $plan, private readonly TemplateReader $reader)
    {
        $this->inspector = new Inspector($rules, $reader, $plan);
        $this->campaigns = Campaigns::of($wide);
        $this->spellings = new Spellings($reader, $plan);
        $this->unused = new Unused($wide);
        $this->words = new Words($wide->dialect, $plan);
    }

    /** What the plan's words have to say of an ad's names and other facts. */
    public function words(Node $ad, Above $above): void
    {
        if ($this->words->matter()) {
            $this->words->of($above->knownOf($ad), $above->type, static fn (): Path => $above->pathTo($ad));
        }
    }

    /** Is any finding on ads with these texts about the names above them? */
    public function dependOnNames(Standing $standing): bool
    {
        return $this->wide->dialect->namesFreeze || StaleLiteral::applies($standing);
    }

    /** Finds what ads of a kind show, once for each choice of names; an ad with a frozen name of its own is looked at by itself. */
    public function kind(AdKind $kind, string $names, Node $ad, Standing $standing): void
    {
        if (isset($kind->counts[$names])) {
            foreach ($this->inspector->frozen($standing) as $finding) {
                $this->tally($finding, $finding->id())->count++;
            }

            return;
        }
        $kind->counts[$names] = 0;
        $kind->tallies[$names] = $this->tallies($ad, $standing);
        $kind->spelled ??= $this->spellings->of($ad);
    }

    /** Adds up what the ads of a kind have shown. */
    public function count(AdKind $kind): void
    {
        foreach ($kind->counts as $names => $ads) {
            foreach ($kind->tallies[$names] ?? [] as $tally) {
                $tally->count += $ads;
            }
        }
        $this->spellings->add($kind->spelled ?? [], array_sum($kind->counts));
        $kind->counts = [];
    }

    /** @return list<Tally> the worst first, of those what is wrong with texts, of those the commonest */
    public function all(): array
    {
        $this->wide();
        $tallies = array_values(array_filter($this->tallies, static fn (Tally $t): bool => $t->count > 0));
        foreach ([...$this->spellings->findings(), ...$this->unused->findings()] as $finding) {
            $tallies[] = new Tally($finding, 1);
        }
        foreach ($this->words->findings() as [$finding, $ads]) {
            $tallies[] = new Tally($finding, $ads);
        }
        usort($tallies, static fn (Tally $a, Tally $b): int => [$a->finding->severity->rank(), $a->finding->isOfClick(), $b->count] <=> [$b->finding->severity->rank(), $b->finding->isOfClick(), $a->count]);

        return $tallies;
    }

    /** @return list<Tally> */
    private function tallies(Node $ad, Standing $standing): array
    {
        $path = $standing->path;
        $this->unused->used($standing);
        $tallies = [];
        foreach ($this->inspector->node($ad, $path) as $finding) {
            // the same text on many ads is one finding
            $text = $finding->slot === null ? ($ad->custom[$finding->custom ?? ''] ?? '') : $ad->slot($finding->slot);
            $tallies[] = $this->tally($finding, "{$finding->code} {$finding->slot?->value} {$finding->custom} {$finding->at} {$text}");
        }
        foreach (Inspector::sorted($this->inspector->standing($standing)) as $finding) {
            $tallies[] = $this->tally($finding, $finding->id());
        }
        $route = Route::with($path, $standing->texts, $this->wide->settings, $this->wide->hops);
        $context = Contexts::plain($route->fields(), $path->dialect, $path->campaignType());
        foreach ($this->inspector->click($path, $route->trace($context), $context, $this->wide->settings, $route->landing($context)) as $finding) {
            $tallies[] = $this->tally($finding->on($ad), "{$finding->code} {$finding->key}");
        }

        return $tallies;
    }

    public function standing(Path $path): Standing
    {
        return new Standing($path, $this->wide->settings, $this->reader, $this->plan, $this->campaigns);
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
                $this->spellings->add($this->spellings->of($node), 1);
            }
        }
    }

    private function tally(Finding $finding, string $id): Tally
    {
        return $this->tallies[$id] ??= new Tally($finding);
    }
}
