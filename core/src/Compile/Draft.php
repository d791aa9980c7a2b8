<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Proof\State;
use Vestigon\Core\Template\Distinct;
use Vestigon\Core\Template\TemplateReader;

/**
 * One way of bringing an account in line, worked out from the account downwards: every node gets the text that its ads
 * should have, and only where they do not have it yet.
 *
 * What a node gets depends on what is said above it and on it, and on the values that are written out: nodes alike in
 * that are worked out once.
 */
final class Draft
{
    /** @var list<Write> */
    private array $writes = [];

    /** @var list<Unmet> what a text or a custom parameter could not take */
    private array $unmet = [];

    /** @var list<Write> */
    private array $overridden = [];

    /** @var array<string, Node> the nodes as they will be, where they change */
    private array $after = [];

    /**
     * @var array<string, int> node → what it and those above it say, before and after; those that say the same have the
     *     same
     */
    private array $said = [];

    /** @var array<string, true> nodes that are not written to, and stand under none that is */
    private array $stays = ['' => true];

    /** @var array<string, int> */
    private array $numbers = [];

    /**
     * @var array<int, array<string, array{list<string>, array<string, Outcome>}>> by what is said above, then on the
     *     node: the fields that are written out, and what comes of each of their values
     */
    private array $outcomes = [];

    /**
     * @var array<int, array<string, true>> by what is said above, then on the ad: ads that are as they should be
     *     already, whichever they are
     */
    private array $settled = [];

    private bool $worked = false;

    private readonly TemplateReader $reader;

    private readonly Wording $wording;

    private readonly OwnTexts $ownTexts;

    private readonly string $adLevel;

    private readonly Account $account;

    /** Is what an ad should say decided by what is said above it and on it alone? */
    private readonly bool $isUniform;

    public function __construct(private readonly Task $task, private readonly Way $way)
    {
        $this->account = $account = $task->account;
        $this->reader = new TemplateReader($account->dialect);
        $this->adLevel = $account->dialect->levelOf(Role::Ad)->id ?? '';
        $this->isUniform = $task->scope->isWhole() && ! $task->kept->any();
        $this->wording = new Wording($task, $way, $this->reader);
        $this->ownTexts = new OwnTexts($account->dialect, $this->wording);
    }

    /** All that it writes, as one text: drafts that write the same have the same. */
    public function writes(): string
    {
        $this->work();

        return Distinct::of(
            ...array_map(static fn (Write $w): string => Distinct::of($w->place(), $w->after), $this->writes),
        );
    }

    /** What was worked out, with writes that nobody may need. */
    public function whole(): Compiled
    {
        $this->work();
        $after = $this->account->with($this->after);
        $verdicts = $this->task->proven->with($this->after);

        return new Compiled(
            $this->writes,
            [...$this->unmet, ...Untrue::in($after, $this->task->plan, $this->task->kept->all(), $verdicts)],
            $this->task->kept->all(),
            $this->overridden,
            will: $verdicts,
        );
    }

    /** What was worked out, without the writes that nobody needs. */
    public function least(): Compiled
    {
        $this->work();
        $needed = Needed::of($this->task, $this->after, $this->writes);
        $places = array_fill_keys(array_map(static fn (Write $w): string => $w->place(), $this->overridden), true);
        $overridden =
            $places === []
                ? []
                : array_values(array_filter($needed->writes, fn (Write $w): bool => isset($places[$w->place()])));
        $this->task->progress->step('listing what can\'t be given');
        $untrue = Untrue::in(
            $this->account->with($needed->after),
            $this->task->plan,
            $this->task->kept->all(),
            $needed->verdicts,
            $this->task->progress,
        );

        return new Compiled(
            $needed->writes,
            [...$this->unmet, ...$untrue],
            $this->task->kept->all(),
            $overridden,
            will: $needed->verdicts,
        );
    }

    private function work(): void
    {
        if ($this->worked) {
            return;
        }
        $this->worked = true;
        $this->task->progress->step('putting the texts together');
        $customs = CustomWrites::of($this->task->scope, $this->wording->customs);
        [$this->after, $this->writes] = [$customs->after, $customs->writes];
        foreach ($this->account->wideNodes() as $key => $node) {
            $this->bring($key, $node);
        }
        [$through, $progress, $parents] = [0, $this->task->progress, $this->account->parents];
        [$asItIs, $stays] = [$this->task->proven->asItIs(), $this->stays];
        foreach ($this->account->adNodes() as $key => $ad) {
            $above = $parents[$key] ?? '';
            // what is true under what stays as it is needs nothing
            if (
                (! isset($stays[$above]) || $asItIs[$key]->state !== State::Proven)
                && ! isset($this->settled[$this->said[$above] ?? 0][$ad->said()])
            ) {
                $this->bring($key, $ad);
            }
            if (++$through === $progress->every) {
                $progress->passed($through);
                $through = 0;
            }
        }
        $progress->passed($through);
        $this->keepUsed($customs);
        [$this->outcomes, $this->said, $this->numbers, $this->settled, $this->stays] = [[], [], [], [], []];
    }

    /**
     * Custom parameters are named before it is known which slots carry what: those that no text uses are not written
     * after all.
     */
    private function keepUsed(CustomWrites $customs): void
    {
        if ($this->wording->customs === []) {
            return;
        }
        $used = $customs->usedIn($this->account, $this->after, $this->reader);
        array_push($this->unmet, ...array_merge([], ...array_values(array_intersect_key($customs->noRoom, $used))));
        $this->writes = array_values(
            array_filter($this->writes, function (Write $write) use ($used): bool {
                if ($write->custom === null || isset($used[$write->custom])) {
                    return true;
                }
                $this->after[$write->node] = $this->after[$write->node]->withCustom(
                    $write->custom,
                    $write->before,
                );

                return false;
            }),
        );
    }

    private function bring(string $key, Node $node): void
    {
        $outcome = $this->task->scope->isFixed($key) ? new Outcome([], []) : $this->outcome($key, $node);
        foreach ($outcome->texts as $slot => $text) {
            $kind = SlotKind::from($slot);
            $write = Write::slot($key, $kind, $node->slots[$slot] ?? null, $text);
            if ($write->overrides($this->account)) {
                $this->overridden[] = $write;
            }
            $this->after[$key] = ($this->after[$key] ?? $node)->withSlot($kind, $text);
            $this->writes[] = $write;
        }
        foreach ($outcome->unmet as $out) {
            $this->unmet[] = new Unmet($key, $out->key, "{$node->name}: {$out->reason}");
        }
        if (! $this->isAd($node)) {
            $said = Distinct::of(
                (string) $this->saidAbove($key),
                $node->level,
                $this->lane($key, $node),
                $node->said(),
                ($this->after[$key] ?? $node)->said(),
            );
            $this->said[$key] = $this->numbers[$said] ??= count($this->numbers) + 1;
            if (! isset($this->after[$key]) && isset($this->stays[$this->account->parents[$key] ?? ''])) {
                $this->stays[$key] = true;
            }
        }
    }

    private function outcome(string $key, Node $node): Outcome
    {
        $above = $this->saidAbove($key);
        $kept = $this->isAd($node)
            ? $this->task->kept->by($key)
            : $this->task->kept->above($key, $this->way->spares);
        $said = Distinct::of(
            $node->level,
            $this->lane($key, $node),
            (string) $this->task->scope->isTop($key),
            $node->said(),
            ...$kept,
        );
        $path = $wanted = null;
        if (! isset($this->outcomes[$above][$said])) {
            $path = $this->account->pathTo($key);
            $wanted = $this->wording->of($path, $this->task->scope->isTop($key), $kept);
            $this->outcomes[$above][$said] = [$wanted->fields, []];
        }
        $fields = $this->outcomes[$above][$said][0];
        $values = '';
        if ($fields !== []) {
            $path ??= $this->account->pathTo($key);
            $values = Distinct::of(
                ...array_values(array_intersect_key($path->fields(false), array_flip($fields))),
            );
        }

        $outcome = $this->outcomes[$above][$said][1][$values] ??= $this->worksOut(
            $path ?? $this->account->pathTo($key),
            $key,
            $wanted
                ?? $this->wording->of($path ?? $this->account->pathTo($key), $this->task->scope->isTop($key), $kept),
        );
        if ($outcome->isNothing() && $fields === [] && $kept === [] && $this->isUniform) {
            $this->settled[$above][$node->said()] = true;
        }

        return $outcome;
    }

    private function worksOut(Path $path, string $key, Wanted $wanted): Outcome
    {
        $above = array_map(
            fn (string $k): Node => $this->after[$k] ?? $this->account->nodes[$k],
            array_slice($this->account->keysTo($key), 0, -1),
        );

        return $this->ownTexts->of($path, $above, $wanted);
    }

    /** What of the plan counts for it, beside what counts for what stands above it. */
    private function lane(string $key, Node $node): ?string
    {
        return $this->task->plan->variants === [] || $this->isAd($node)
            ? $node->type
            : $this->task->plan->lane($this->account->pathTo($key))->id;
    }

    private function saidAbove(string $key): int
    {
        $parent = $this->account->parents[$key];

        return $parent === null ? 0 : $this->said[$parent] ?? 0;
    }

    private function isAd(Node $node): bool
    {
        return $node->level === $this->adLevel;
    }
}
