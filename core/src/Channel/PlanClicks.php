<?php

declare(strict_types=1);

namespace Vestigon\Core\Channel;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\Plan;

/** In which channel a platform's clicks are counted by what a plan says in fixed text; fields count as empty. */
final readonly class PlanClicks
{
    /** @param array<string, string> $values key → fixed text */
    private function __construct(private array $values) {}

    public static function of(Plan $plan, Dialect $dialect): self
    {
        $values = [];
        foreach ($plan->parameters as $parameter) {
            $parts = $parameter->choices($dialect)[0] ?? [];
            $text = '';
            foreach ($parts as $part) {
                $text .= $part->field === null ? $part->text : "\0";
            }
            $values[$parameter->key] = str_contains($text, "\0") ? '' : $text;
        }

        return new self($values);
    }

    public function counted(Channels $channels): Counted
    {
        return $channels->of($this->values);
    }

    /** A word for a key that would have them counted in another channel; null: none of the rules' own words does. */
    public function wordFor(Channels $channels, string $key, string $channel): ?string
    {
        foreach ($channels->rules as $rule) {
            foreach ($rule->channel === $channel ? $rule->all : [] as $test) {
                foreach (($channels->keys[$test->key] ?? $test->key) === $key ? $test->in : [] as $word) {
                    $fits = preg_match('/\s/u', $word) !== 1 && $word !== '';
                    if ($fits && $channels->of([$key => $word] + $this->values)->channel === $channel) {
                        return $word;
                    }
                }
            }
        }

        return null;
    }
}
