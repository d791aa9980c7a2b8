<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

/** A change's writes in the order of a safe rollout: the trial, the rest by risk, and the trial's traces last. */
final readonly class Staged
{
    /** @param list<array{Write, Stage}> $writes in the order to apply */
    private function __construct(public array $writes) {}

    /**
     * @param list<Write> $writes the change, the least risky first
     * @param list<Trial> $trials of different ads
     */
    public static function of(array $writes, array $trials): self
    {
        $ads = array_fill_keys(array_map(static fn (Trial $t): string => $t->ad, $trials), true);
        $asIf = [];
        foreach ($trials as $trial) {
            foreach ($trial->asIf as $write) {
                $asIf[self::place($write)] = $write;
            }
        }
        $tidy = $asIf;
        $first = $rest = $after = [];
        foreach ($writes as $write) {
            $place = self::place($write);
            if (isset($asIf[$place])) {
                $after[] = [$write->instead($asIf[$place]->after), Stage::After]; // it takes the place of what the trial said there
                unset($tidy[$place]);
            } elseif (isset($ads[$write->node])) {
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

        return new self([...$first, ...$rest, ...$after]);
    }

    /**
     * The writes on some nodes first, as they are, where no trial on an ad alone can be had.
     *
     * @param list<Write> $writes
     * @param list<string> $nodes
     */
    public static function beginningOn(array $writes, array $nodes): self
    {
        $isFirst = static fn (Write $w): bool => in_array($w->node, $nodes, true);

        return new self([
            ...array_map(static fn (Write $w): array => [$w, Stage::Trial], array_values(array_filter($writes, $isFirst))),
            ...array_map(static fn (Write $w): array => [$w, Stage::Rest], array_values(array_filter($writes, static fn (Write $w): bool => ! $isFirst($w)))),
        ]);
    }

    private static function place(Write $write): string
    {
        return "{$write->node} ".($write->slot->value ?? "custom {$write->custom}");
    }
}
