<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Proof\Survey;
use Vestigon\Core\Proof\Today;
use Vestigon\Core\Proof\Verdict;
use Vestigon\Core\Url\Query;

/**
 * Leaves out the writes without which no ad is worse off, from the ads upwards, as long as any can go.
 *
 * A node's writes are tried to be left out all at once, then one by one: the ads below are proven anew, until one of
 * them is worse off.
 */
final class Needed
{
    private readonly Account $before;

    private readonly Today $today;

    /** @var list<Write> */
    public array $writes;

    /** @var array<string, Verdict> by ad, after the writes */
    public array $verdicts = [];

    private readonly Branches $branches;

    /** @var \WeakMap<Verdict, array<string, true>> what is wrong */
    private \WeakMap $faults;

    /**
     * @param array<string, Node> $after
     * @param list<Write> $writes
     */
    private function __construct(private readonly Task $task, public array $after, array $writes)
    {
        $this->before = $task->account;
        $this->branches = new Branches($task->account);
        $this->today = $task->today();
        $this->faults = new \WeakMap();
        $this->writes = $writes;
    }

    /**
     * @param array<string, Node> $after the nodes as they will be, where they change
     * @param list<Write> $writes in the order to apply
     */
    public static function of(Task $task, array $after, array $writes): self
    {
        $needed = new self($task, $after, $writes);
        $task->progress->step('proving every ad with the new texts');
        $needed->verdicts = $task->proven->with($after, $task->progress);
        do {
            // what one write made needless may make another so
            $count = count($needed->writes);
            $needed->once();
        } while (count($needed->writes) < $count);
        $needed->goOn();

        return $needed;
    }

    /** Goes through the nodes that are written to once, from the ads upwards. */
    private function once(): void
    {
        $this->task->progress->step('leaving out what no ad needs');
        $byDepth = [];
        foreach ($this->writes as $i => $write) {
            $byDepth[$this->branches->depth($write->node)][$write->node][$i] = $write;
        }
        krsort($byDepth);
        $byNode = array_replace([], ...array_values($byDepth));
        $ads = null;
        foreach ($byNode as $node => $some) {
            $node = (string) $node;
            // all ads are decided under what stands above them now: one survey serves them
            $survey = $this->branches->isAd($node) ? ($ads ??= $this->survey()) : null;
            $byNode[$node] = $this->kept($node, $some, $survey);
        }
        $kept = array_replace([], ...array_values($byNode));
        ksort($kept);
        $this->writes = array_values($kept);
    }

    /**
     * Where all landing URLs below have a query by the time a template gets them, it goes on behind them with `&` if
     * that does as well: a second `?` works by chance at best.
     */
    private function goOn(): void
    {
        $dialect = $this->before->dialect;
        $token = $dialect->rawLanding();
        if ($token === null || $dialect->assembly->mendsQuestionMark) {
            return;
        }
        $asks = $dialect->written($token->name).'?';
        $writes = [];
        foreach ($this->writes as $write) {
            $text = (string) $write->after;
            if (
                $write->slot === SlotKind::Template
                && str_starts_with($text, $asks)
                && $this->allHaveQueries($write->node)
            ) {
                $text = substr_replace($text, '&', strlen($asks) - 1, 1);
                $goesOn =
                    $this->isAsGood(
                        $write->node,
                        $this->after[$write->node]->withSlot(SlotKind::Template, $text),
                        null,
                    ) ?? false;
                $write = $goesOn ? Write::slot($write->node, SlotKind::Template, $write->before, $text) : $write;
            }
            if ($write->before !== $write->after) {
                $writes[] = $write;
            }
        }
        $this->writes = $writes;
    }

    /** Has the landing URL of each ad below a node a query, or gets one, by the platform or a suffix? */
    private function allHaveQueries(string $node): bool
    {
        if ($this->before->settings->joinLanding($this->before->dialect)) {
            return true;
        }
        $standing = fn (string $key): Node => $this->after[$key] ?? $this->before->nodes[$key];
        $suffixJoins = ! $this->before->dialect->assembly->suffixJoinsClick;
        foreach ($this->branches->adsBelow($node) as $ad) {
            $above = array_map($standing, array_slice($this->before->keysTo($ad), 0, -1));
            $said = new Inheritance(new Path($this->before->dialect, [...$above, $standing($ad)]));
            $isJoined = $suffixJoins && ($said->effective(SlotKind::Suffix)->text ?? '') !== '';
            if (! $isJoined && Query::of($said->effective(SlotKind::Landing)->text ?? '') === null) {
                return false;
            }
        }

        return true;
    }

    /**
     * @param array<int, Write> $writes of one node
     * @return array<int, Write>
     */
    private function kept(string $node, array $writes, ?Survey $survey): array
    {
        if ($this->isAsGood($node, $this->before->nodes[$node], $survey) ?? false) {
            return [];
        }
        foreach (count($writes) > 1 ? array_reverse($writes, true) : [] as $i => $write) {
            $stands = $this->after[$node];
            if ($this->isAsGood($node, $write->reversed()->on($stands, false), $survey) ?? false) {
                unset($writes[$i]);
            }
        }

        return $writes;
    }

    /**
     * Is no ad worse off with the node like this? Leaves the node so if none is.
     *
     * @param Survey|null $survey of the node's ads as they are above it; null: the node is no ad
     * @return bool|null null: there is no ad below, so nothing can be told: the ads that come will need it
     */
    private function isAsGood(string $node, Node $like, ?Survey $survey): ?bool
    {
        $stands = $this->after[$node];
        $this->after[$node] = $like;
        $survey ??= $this->survey($node);
        $found = [];
        foreach ($this->branches->adsBelow($node) as $ad) {
            $verdict = $this->verdict($survey, $ad);
            if (array_diff_key($this->faults($verdict), $this->faults($this->verdicts[$ad])) !== []) {
                $this->after[$node] = $stands;

                return false;
            }
            $found[$ad] = $verdict;
            $this->task->progress->ad();
        }
        if ($found === []) {
            $this->after[$node] = $stands;

            return null;
        }
        foreach ($found as $ad => $verdict) {
            $this->verdicts[$ad] = $verdict;
        }

        return true;
    }

    /** A survey of the account as it will be, or of one branch of it. */
    private function survey(?string $node = null): Survey
    {
        $before = $this->before;
        $keys =
            $node === null
                ? array_keys(iterator_to_array($before->wideNodes()))
                : [...$before->keysTo($node), ...$this->branches->widerBelow($node)];
        $nodes = $parents = [];
        foreach ($keys as $key) {
            $key = (string) $key;
            if (! $this->branches->isAd($key)) {
                $nodes[$key] = $this->after[$key] ?? $before->nodes[$key];
                $parents[$key] = $before->parents[$key];
            }
        }

        return new Survey(
            new Account($before->dialect, $before->settings, $before->hops, $nodes, $parents),
            $this->task->plan,
            today: $this->today,
        );
    }

    private function verdict(Survey $survey, string $ad): Verdict
    {
        $asItWas = $this->isAsItWas($ad) ? $this->task->proven->known($ad) : null;

        return $asItWas ??
            $this->task->proving->verdict(
                $survey,
                $this->before,
                $ad,
                fn (string $node): Node => $this->after[$node] ?? $this->before->nodes[$node],
                $this->today,
            );
    }

    /** Is nothing changed any more on an ad, nor above it? */
    private function isAsItWas(string $ad): bool
    {
        foreach ($this->before->keysTo($ad) as $key) {
            if (($this->after[$key] ?? $this->before->nodes[$key]) !== $this->before->nodes[$key]) {
                return false;
            }
        }

        return true;
    }

    /** @return array<string, true> */
    private function faults(Verdict $verdict): array
    {
        return $this->faults[$verdict] ??= $verdict->faults();
    }
}
