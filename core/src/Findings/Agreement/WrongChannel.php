<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Agreement;

use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Channel\PlanClicks;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Fix;
use Vestigon\Core\Findings\PlanRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Plan\Cell;
use Vestigon\Core\Plan\Plan;

/** wrong-channel: the plan's own words put a platform's clicks into another channel than they must be counted in. */
final readonly class WrongChannel implements PlanRule
{
    /** @param list<Dialect> $dialects */
    public function __construct(private Channels $channels, private array $dialects) {}

    public function check(Plan $plan): iterable
    {
        $seen = [];
        foreach ($this->dialects as $dialect) {
            $wanted = $plan->channels[$dialect->family] ?? null;
            $clicks = PlanClicks::of($plan, $dialect);
            $counted = $clicks->counted($this->channels);
            $id = "{$dialect->family} {$counted->channel} {$counted->why}";
            if ($wanted === null || $counted->channel === $wanted || isset($seen[$id])) {
                continue;
            }
            $seen[$id] = true;
            $cell = $this->cell($plan, $dialect);
            $word = $cell === null ? null : $clicks->wordFor($this->channels, $cell->key, $wanted);
            yield new Finding(
                'wrong-channel',
                Severity::Error,
                "Clicks from {$dialect->title} would be counted as {$counted->channel} ({$counted->why}), not as "
                    ."{$wanted}.",
                key: $this->channels->keys['medium'] ?? null,
                fix: $word === null ? null : new Fix("write {$word} on {$dialect->title}", $word),
                cell: $cell,
            );
        }
    }

    /** Where it is said which medium a platform's clicks have. */
    private function cell(Plan $plan, Dialect $dialect): ?Cell
    {
        foreach ($plan->parameters as $parameter) {
            $parts = $parameter->choices($dialect)[0] ?? null;
            if ($parameter->key === ($this->channels->keys['medium'] ?? null) && $parts !== null) {
                return new Cell($parameter->key, $parts, platform: $dialect->id);
            }
        }

        return null;
    }
}
