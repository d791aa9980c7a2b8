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
     * @param list<Trial> $trials none writes what another does; none: all at once
     */
    public static function of(array $writes, array $trials): self
    {
        $tried = array_fill_keys(array_merge(...array_map(static fn (Trial $t): array => $t->nodes, $trials)), true);
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

        return new self([...$first, ...$rest, ...$after]);
    }

    private static function place(Write $write): string
    {
        return "{$write->node} ".($write->slot->value ?? "custom {$write->custom}");
    }
}
