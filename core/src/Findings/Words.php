<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Plan\Lane;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Truth;

/**
 * not-in-vocabulary and retired-value, of words that come from names and other facts of the account: each word once,
 * with how many ads send it.
 */
final class Words
{
    /** @var array<string, list<string>> lane → the keys with a vocabulary whose values the account gives */
    private array $keys = [];

    /** @var array<string, Truth> by lane */
    private array $truths = [];

    /**
     * @var array<string, array<string, array{Node, int}>> key → word → the element that first showed it, and how many
     *     ads
     */
    private array $seen = [];

    private readonly bool $matters;

    public function __construct(private readonly Dialect $dialect, private readonly ?Plan $plan)
    {
        $listed = array_filter($plan?->keys() ?? [], fn (string $key): bool => $this->listed($key) !== null);
        $this->matters = $listed !== [];
    }

    /** Has any key a vocabulary? Without one, no ad need be looked at. */
    public function matter(): bool
    {
        return $this->matters;
    }

    /**
     * @param array<string, string> $known what is true of an ad, by field
     * @param \Closure(): Path $path to it
     */
    public function of(array $known, Lane $lane, \Closure $path): void
    {
        if ($this->plan === null) {
            return;
        }
        $truth = $this->truths[$lane->id] ??= Truth::of(
            $this->plan,
            $this->dialect,
            $lane,
            static fn (): bool => false,
        );
        foreach ($this->keys[$lane->id] ??= $this->keys($this->plan->in($lane->variant), $truth) as $key) {
            $word = $truth->choices[$key]->value($known);
            $this->seen[$key][$word] ??= [self::owner($path(), $truth->choices[$key]->fields()[0]), 0];
            $this->seen[$key][$word][1]++;
        }
    }

    /** @return array<string, array<string, array{Node, int}>> what was counted so far */
    public function seen(): array
    {
        return $this->seen;
    }

    /** @param array<string, array<string, array{Node, int}>> $seen on other ads */
    public function take(array $seen): void
    {
        foreach ($seen as $key => $words) {
            foreach ($words as $word => [$node, $ads]) {
                $this->seen[$key][$word] ??= [$node, 0];
                $this->seen[$key][$word][1] += $ads;
            }
        }
    }

    /** @return iterable<array{Finding, int}> each with how many ads */
    public function findings(): iterable
    {
        foreach ($this->seen as $key => $words) {
            $parameter = $this->listed((string) $key);
            foreach ($words as $word => [$node, $ads]) {
                $said = $parameter === null ? null : PlanWords::told($parameter, (string) $word);
                if ($said !== null) {
                    yield [$said->on($node), $ads];
                }
            }
        }
    }

    /** What the plan says of a key, with the words that are allowed for it; null: any are. */
    private function listed(string $key): ?Parameter
    {
        foreach ($this->plan?->of($key) ?? [] as $parameter) {
            if (! $parameter->vocabulary->isEmpty()) {
                return $parameter;
            }
        }

        return null;
    }

    /** @return list<string> */
    private function keys(Plan $plan, Truth $truth): array
    {
        $keys = [];
        foreach ($plan->parameters as $parameter) {
            $fields =
                isset($truth->choices[$parameter->key]) && ! $parameter->vocabulary->isEmpty()
                    ? $truth->choices[$parameter->key]->fields()
                    : [];
            if (
                $fields !== []
                && array_filter($fields, static fn (string $f): bool => Fields::owner($f) === null) === []
            ) {
                $keys[] = $parameter->key;
            }
        }

        return $keys;
    }

    private static function owner(Path $path, string $field): Node
    {
        $role = Fields::owner($field);

        return ($role === null ? null : $path->withRole($role)) ?? $path->last();
    }
}
