<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** The words that people have agreed on, key by key (`vestigon.words/1`). */
final readonly class AgreedWords
{
    public const FORMAT = 'vestigon.words/1';

    /** @param array<string, list<AgreedWord>> $keys */
    private function __construct(public array $keys) {}

    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function read(Cursor $c): self
    {
        if ($c->at('format')->value !== self::FORMAT) {
            $c->at('format')->fail('"'.self::FORMAT.'" is wanted');
        }
        $keys = [];
        foreach ($c->at('keys')->map() as $key => $list) {
            $words = [];
            foreach ($list->list() as $item) {
                $word = self::word($item);
                if (isset($words[$word->word])) {
                    $item->at('word')->fail("\"{$word->word}\" is there twice");
                }
                $words[$word->word] = $word;
            }
            foreach ($list->list() as $item) {
                $use = $item->has('retired') && $item->at('retired')->has('use')
                    ? $item->at('retired')->at('use')->string()
                    : null;
                if ($use !== null && ! isset($words[$use])) {
                    $item->at('retired')->at('use')->fail("\"{$use}\" is no word of {$key}");
                }
            }
            $keys[(string) $key] = array_values($words);
        }

        return new self($keys);
    }

    /**
     * The words of a key.
     *
     * @param string|null $day as they are on that day; null: as they will be in the end
     */
    public function of(string $key, ?string $day): Vocabulary
    {
        $words = [];
        foreach ($this->keys[$key] ?? [] as $word) {
            $words[$word->word] = $word->isRetiredOn($day) ? $word->use ?? '' : null;
        }

        return new Vocabulary($words);
    }

    /** The plan with these words for keys that have no list of their own in it. */
    public function in(Plan $plan, ?string $day): Plan
    {
        return $plan->each(
            fn (Parameter $p): Parameter => $p->vocabulary->isEmpty() && isset($this->keys[$p->key])
                ? $p->among($this->of($p->key, $day))
                : $p,
        );
    }

    private static function word(Cursor $c): AgreedWord
    {
        $retired = $c->has('retired') ? $c->at('retired') : null;

        return new AgreedWord(
            $c->at('word')->someText(),
            $c->has('means') ? $c->at('means')->string() : '',
            $retired === null ? null : self::day($retired->at('since')),
            $retired !== null && $retired->has('use') ? $retired->at('use')->someText() : null,
        );
    }

    private static function day(Cursor $c): string
    {
        $day = \DateTimeImmutable::createFromFormat('!Y-m-d', $c->string());

        return $day !== false && $day->format('Y-m-d') === $c->string()
            ? $c->string()
            : $c->fail('a day is wanted, like 2026-11-26');
    }
}
