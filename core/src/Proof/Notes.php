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
use Vestigon\Core\Template\Distinct;
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

    /** Has the plan words that names are held against? */
    public readonly bool $readWords;

    private bool $sawWide = false;

    public function __construct(
        private readonly Account $wide,
        RuleBook $rules,
        private readonly ?Plan $plan,
        private readonly TemplateReader $reader,
    ) {
        $this->inspector = new Inspector($rules, $reader, $plan);
        $this->campaigns = Campaigns::of($wide);
        $this->spellings = new Spellings($reader, $plan);
        $this->unused = new Unused($wide);
        $this->words = new Words($wide->dialect, $plan);
        $this->readWords = $this->words->matter();
    }

    /** What the plan's words have to say of an ad's names and other facts. */
    public function words(Node $ad, Above $above): void
    {
        $this->words->of($above->knownOf($ad), $above->lane, static fn (): Path => $above->pathTo($ad));
    }

    /** Is any finding on ads with these texts about the names above them? */
    public function dependOnNames(Standing $standing): bool
    {
        return $this->wide->dialect->namesFreeze || StaleLiteral::applies($standing);
    }

    /** What an ad shows, and with it all that are alike. */
    public function shown(Route $route, Node $ad, Standing $standing): Shown
    {
        return new Shown($ad, $this->tallies($route, $ad, $standing), $this->spellings->of($ad));
    }

    /** An ad with a frozen name of its own shows that by itself. */
    public function frozen(Path $path): void
    {
        foreach ($this->inspector->frozen($this->standing($path)) as $finding) {
            if ($finding->node === $path->last()) {
                $this->tally($finding, $finding->id())->count++;
            }
        }
    }

    /** Counts what more ads have shown. */
    public function add(Shown $shown, int $ads): void
    {
        foreach ($shown->tallies as $tally) {
            $tally->count += $ads;
        }
        $this->spellings->add($shown->spelled, $ads);
    }

    /** What was counted so far, but for what stands above the ads. */
    public function noted(): Noted
    {
        return new Noted(
            $this->tallies,
            $this->spellings->seen(),
            $this->unused->seen(),
            $this->words->seen(),
        );
    }

    /** Adds what was counted elsewhere. */
    public function take(Noted $noted): void
    {
        foreach ($noted->tallies as $id => $tally) {
            $this->tally($tally->finding, (string) $id)->count += $tally->count;
        }
        $this->spellings->take($noted->spellings);
        $this->unused->take($noted->used);
        $this->words->take($noted->words);
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
        usort(
            $tallies,
            static fn (Tally $a, Tally $b): int => [
                $a->finding->severity->rank(),
                $a->finding->isOfClick(),
                $b->count,
            ] <=> [$b->finding->severity->rank(), $b->finding->isOfClick(), $a->count],
        );

        return $tallies;
    }

    /** @return list<Tally> */
    private function tallies(Route $route, Node $ad, Standing $standing): array
    {
        $path = $standing->path;
        $this->unused->used($standing);
        $tallies = [];
        foreach ($this->inspector->node($ad, $path) as $finding) {
            $tallies[] = $this->tally($finding, self::sameOn($ad, $finding));
        }
        foreach (Inspector::sorted($this->inspector->standing($standing)) as $finding) {
            if ($finding->code === 'frozen-name' && $finding->node === $ad) {
                $this->tally($finding, $finding->id())->count++; // its own name: no other ad shows that
            } else {
                $id = $finding->node === $ad ? self::sameOn($ad, $finding) : $finding->id();
                $tallies[] = $this->tally($finding, $id);
            }
        }
        $context = Contexts::plain($route->fields(), $path->dialect, $path->campaignType());
        // the route may be of another ad with the same texts: what this one does not have is nothing, not the other's
        $click =
            $context + $path->fields($path->dialect->namesFreeze) + array_fill_keys($route->fields(), '');
        foreach (
            $this->inspector->click(
                $path,
                $route->trace($click),
                $context,
                $this->wide->settings,
                $route->page($click),
            ) as $finding
        ) {
            $tallies[] = $this->tally($finding->on($ad), "{$finding->code} {$finding->key}");
        }

        return $tallies;
    }

    /** The same said of the same text is one finding, on however many ads that stands. */
    private static function sameOn(Node $ad, Finding $finding): string
    {
        return Distinct::of(
            $finding->code,
            $finding->slot?->value,
            $finding->custom,
            $finding->at === null ? null : (string) $finding->at,
            $finding->key,
            $finding->slot === null ? $ad->custom[$finding->custom ?? ''] ?? null : $ad->slot($finding->slot),
        );
    }

    public function standing(Path $path): Standing
    {
        return new Standing(
            $path,
            $this->wide->settings,
            $this->reader,
            $this->plan,
            $this->campaigns,
            $this->wide->hops,
        );
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
