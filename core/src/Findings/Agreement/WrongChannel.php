<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Agreement;

use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PlanRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Plan\Part;
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
            if ($wanted === null) {
                continue;
            }
            $counted = $this->channels->of($this->fixed($plan, $dialect));
            $id = "{$dialect->family} {$counted->channel} {$counted->why}";
            if ($counted->channel !== $wanted && ! isset($seen[$id])) {
                $seen[$id] = true;
                yield new Finding(
                    'wrong-channel',
                    Severity::Error,
                    "Clicks from {$dialect->title} would be counted as {$counted->channel} ({$counted->why}), not as "
                        ."{$wanted}.",
                    key: $this->channels->keys['medium'] ?? null,
                );
            }
        }
    }

    /** @return array<string, string> key → the fixed text that the plan gives it on a platform */
    private function fixed(Plan $plan, Dialect $dialect): array
    {
        $values = [];
        foreach ($plan->parameters as $parameter) {
            $parts = $parameter->choices($dialect)[0] ?? [];
            if ($parts !== [] && array_filter($parts, static fn (Part $p): bool => $p->field !== null) === []) {
                $values[$parameter->key] = implode(
                    '',
                    array_map(static fn (Part $p): string => (string) $p->text, $parts),
                );
            }
        }

        return $values;
    }
}
