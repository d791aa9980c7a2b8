<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch\Wrong;

use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Plan\AgreedWords;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Vocabulary;

/** What was agreed on, which what arrives is held against. */
final readonly class Agreed
{
    /** @param list<Dialect> $dialects platforms whose tokens may arrive as they stand */
    public function __construct(
        public Channels $channels,
        public array $dialects,
        private AgreedWords $words,
        private ?Plan $plan = null,
        private ?string $day = null,
    ) {}

    /** The key of a URL for what channel rules call `source`, `medium` …. */
    public function key(string $name): string
    {
        return $this->channels->keys[$name] ?? "utm_{$name}";
    }

    /** The words that a key may have: the plan's own, or those that were agreed on for all. */
    public function vocabulary(string $key): Vocabulary
    {
        $own = array_map(static fn (Parameter $p): Vocabulary => $p->vocabulary, $this->plan?->of($key) ?? []);
        $own = Vocabulary::together(...$own);

        return $own->isEmpty() ? $this->words->of($key, $this->day) : $own;
    }

    /** Does the plan want something under a key, wherever an ad is known? */
    public function isRequired(string $key): bool
    {
        return $this->plan?->requires($key) ?? false;
    }
}
