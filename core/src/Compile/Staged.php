<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/**
 * A change's writes in the order of a safe rollout: the trial, the rest by risk, and the trial's traces last.
 *
 * What the account switches comes before all else, with the trial: no text is right without it, and it can't be tried
 * on one ad.
 */
final readonly class Staged
{
    /** @param list<array{Write, Stage}> $writes in the order to apply */
    private function __construct(public array $writes) {}

    /**
     * @param list<Write> $writes the change, the least risky first
     * @param list<Trial> $trials none writes what another does; none: all texts at once
     * @param int $others so many writes of the change are not among them: no trial has to do with those
     */
    public static function of(array $writes, array $trials, int $others = 0): self
    {
        $tried = array_fill_keys(
            array_merge(...array_map(static fn (Trial $t): array => $t->nodes, $trials)),
            true,
        );
        $asIf = [];
        foreach ($trials as $trial) {
            foreach ($trial->asIf as $write) {
                $asIf[$write->place()] = $write;
            }
        }
        $tidy = $asIf;
        $switches = $first = $rest = $after = [];
        foreach ($writes as $write) {
            $place = $write->place();
            if (isset($asIf[$place])) {
                // it takes the place of what the trial said there
                $after[] = [$write->instead($asIf[$place]->after), Stage::After];
                unset($tidy[$place]);
            } elseif ($write->setting !== null) {
                $switches[] = [$write, count($writes) + $others > 1 ? Stage::Trial : Stage::Rest];
            } elseif (isset($tried[$write->node])) {
                $first[] = [$write, Stage::Trial];
            } else {
                $rest[] = [$write, Stage::Rest];
            }
        }
        foreach ($asIf as $write) {
            $first[] = [$write, Stage::Trial];
        }
        foreach ($tidy as $write) {
            $after[] = [$write->reversed(), Stage::After];
        }

        return new self([...$switches, ...$first, ...$rest, ...$after]);
    }
}
