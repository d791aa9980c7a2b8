<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/**
 * Tries the ways of carrying the plan on an account and takes the best.
 *
 * Of many ads, the way is chosen on a sample: each way costs a draft and a proof.
 */
final readonly class Search
{
    private function __construct(private Task $task, private Ways $ways) {}

    public static function for(Task $task): Compiled
    {
        $nothing = self::nothing($task);
        if ($nothing->unmet === []) {
            return $nothing;
        }
        $ways = Ways::of($task);
        $sample = Sample::of($task->account, $task->plan);
        $isSmall = $sample === $task->account;
        if (! $isSmall) {
            $task->progress->step('choosing where the plan is carried');
            $ways = $ways->with(
                (new self($task->on($task->scope->for($sample)), $ways))->best(mayTurn: true)->way,
            );
        }
        $best = (new self($task, $ways))->best(mayTurn: $isSmall);

        return $best->rank() < [...$nothing->lack(), false, 0]
            ? $best->found->from($nothing->was)->by($best->way)
            : $nothing;
    }

    /** The account as it is, with what is not true in it. */
    private static function nothing(Task $task): Compiled
    {
        $task->progress->step('proving every ad as it is');
        $verdicts = $task->proven->asItIs($task->progress);
        $kept = $task->kept->all();

        return new Compiled(
            [],
            Untrue::in($task->account, $task->plan, $kept, $verdicts),
            $kept,
            [],
            $verdicts,
            $verdicts,
        );
    }

    /** @param bool $mayTurn to landing URLs for all, where all else leaves more untrue? false: that is decided */
    private function best(bool $mayTurn): Tried
    {
        $best = $this->forAll();
        if ($this->ways->apart === [] || $best->found->isTrue()) {
            return $best;
        }
        $this->task->progress->step('serving some ads apart');
        $best = new Tried(
            $best->way,
            ServingApart::served($this->task, $best->found, $this->ways->apart)->keeping($best->found->kept),
        );
        if (! $mayTurn || $best->found->isTrue()) {
            return $best;
        }
        $landing = new Way(Carrier::Landing);

        return $best->orBetter(new Tried($landing, (new Draft($this->task, $landing))->least()));
    }

    /** All ads are served the same way: of those that leave the least unmet, the one that takes the fewest writes. */
    private function forAll(): Tried
    {
        $ways = $this->ways->forAll;
        if (count($ways) === 1) {
            return new Tried($ways[0], (new Draft($this->task, $ways[0]))->least());
        }
        $drafts = $lacks = $seen = [];
        foreach ($ways as $i => $way) {
            if ($way->isLandingUrls() && in_array([0, 0], $lacks, true)) {
                continue; // the last resort: what is written into landing URLs does not reach the ads of tomorrow
            }
            $draft = new Draft($this->task, $way);
            if (! isset($seen[$draft->writes()])) {
                // else another way has said the same
                $seen[$draft->writes()] = true;
                $drafts[$i] = $draft;
                $lacks[$i] = $draft->whole()->lack();
            }
        }
        $best = null;
        foreach ($drafts as $i => $draft) {
            if ($lacks[$i] === min($lacks)) {
                $tried = new Tried($ways[$i], $draft->least());
                $best = $best?->orBetter($tried) ?? $tried;
            }
        }

        return $best ?? throw new \LogicException('one of the ways has the least unmet');
    }
}
