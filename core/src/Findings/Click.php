<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Trace\Trace;

/** One click: what was known, what was sent, what arrived, and what should have. */
final readonly class Click
{
    /** @var array<string, list<string>> the values that arrived, by key */
    public array $arrived;

    /**
     * @param array<string, string> $fields what is known of the click: from its context and from the ad's path
     * @param array<string, string> $expected key → the value that must arrive, by the plan; empty without one
     * @param array<string, string> $unmet required keys that the platform can't give → why
     * @param list<string> $keys keys whose values matter
     * @param list<string> $planKeys those of them that the plan has
     * @param string|null $clickIdKey the parameter that must bring the click ID; null: none need come
     * @param string|null $landing the landing page: where the landing URL alone leads; null: not known
     */
    public function __construct(
        public Dialect $dialect,
        public Trace $trace,
        public array $fields,
        public array $expected,
        public array $unmet,
        public array $keys,
        public array $planKeys,
        public ?string $clickIdKey,
        public ?string $landing,
    ) {
        $arrived = [];
        foreach ($trace->arrival as [$key, $value]) {
            $arrived[$key][] = $value;
        }
        $this->arrived = $arrived;
    }

    /** Does the page read anything at all? */
    public function lands(): bool
    {
        return $this->trace->landed !== null;
    }

    /** Is a stretch of text part of a value that this click was given? Then it says nothing about the texts. */
    public function wasGiven(string $text): bool
    {
        foreach ($this->fields as $value) {
            if (str_contains($value, $text)) {
                return true;
            }
        }

        return false;
    }

    public static function quoted(string $text): string
    {
        return $text === ''
            ? 'nothing'
            : '“'.(mb_strlen($text) > 80 ? mb_substr($text, 0, 79).'…' : $text).'”';
    }
}
