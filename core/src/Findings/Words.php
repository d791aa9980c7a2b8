<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Truth;

/**
 * not-in-vocabulary and retired-value, of words that come from names and other facts of the account: each word once,
 * with how many ads send it.
 */
final class Words
{
    /** @var array<string, list<string>> campaign type → the keys with a vocabulary whose values the account gives */
    private array $keys = [];

    /** @var array<string, Truth> by campaign type */
    private array $truths = [];

    /**
     * @var array<string, array<string, array{Node, int}>> key → word → the element that first showed it, and how many
     *     ads
     */
    private array $seen = [];

    private readonly bool $matters;

    public function __construct(private readonly Dialect $dialect, private readonly ?Plan $plan)
    {
        $this->matters =
            array_filter($plan->parameters ?? [], static fn ($p): bool => ! $p->vocabulary->isEmpty()) !== [];
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
    public function of(array $known, ?string $type, \Closure $path): void
    {
        if ($this->plan === null) {
            return;
        }
        $truth = $this->truths[$type ?? ''] ??= Truth::of(
            $this->plan,
            $this->dialect,
            $type,
            static fn (): bool => false,
        );
        foreach ($this->keys[$type ?? ''] ??= $this->keys($truth) as $key) {
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
        foreach ($this->plan->parameters ?? [] as $parameter) {
            foreach ($this->seen[$parameter->key] ?? [] as $word => [$node, $ads]) {
                $said = PlanWords::told($parameter, (string) $word);
                if ($said !== null) {
                    yield [$said->on($node), $ads];
                }
            }
        }
    }

    /** @return list<string> */
    private function keys(Truth $truth): array
    {
        $keys = [];
        foreach ($this->plan->parameters ?? [] as $parameter) {
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
