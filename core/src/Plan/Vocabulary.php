<?php

declare(strict_types=1);

namespace Vestigon\Core\Plan;

use Vestigon\Core\Findings\Guess;
use Vestigon\Core\Findings\Spelling;

/** The words that are allowed for a value. A word may be retired, with what takes its place. */
final readonly class Vocabulary
{
    /**
     * @param array<string, string|null> $words word → null while it is in use; retired: its successor, empty if it has
     *     none
     */
    public function __construct(private array $words = []) {}

    /** The words of several, of a word that is in two as the first has it; empty if one of them allows any. */
    public static function together(self ...$vocabularies): self
    {
        $words = [];
        foreach ($vocabularies as $vocabulary) {
            if ($vocabulary->isEmpty()) {
                return $vocabulary;
            }
            $words += $vocabulary->words;
        }

        return new self($words);
    }

    public function isEmpty(): bool
    {
        return $this->words === [];
    }

    /** Is it a word of the list, in use or not? */
    public function has(string $value): bool
    {
        return array_key_exists($value, $this->words);
    }

    public function knows(string $value): bool
    {
        return $this->words === [] || $this->has($value);
    }

    public function isRetired(string $value): bool
    {
        return ($this->words[$value] ?? null) !== null;
    }

    /** The word in use that has taken a retired one's place, however often it was replaced; null if there is none. */
    public function successor(string $value): ?string
    {
        $seen = [];
        while (($next = $this->words[$value] ?? null) !== null && ! isset($seen[$value])) {
            $seen[$value] = true;
            $value = $next;
        }

        return $seen !== [] && array_key_exists($value, $this->words) && $this->words[$value] === null
            ? $value
            : null;
    }

    /**
     * Is a value among the words? One that is written otherwise by no more than capitals and what stands between its
     * parts is not, and the word is named.
     */
    public function judged(string $value): JudgedWord
    {
        return match (true) {
            ! $this->knows($value) => new JudgedWord(
                WordStanding::Unknown,
                $this->alike($value) ?? Guess::nearest($value, $this->inUse()),
            ),
            $this->isRetired($value) => new JudgedWord(WordStanding::Retired, $this->successor($value)),
            default => new JudgedWord(WordStanding::Allowed),
        };
    }

    private function alike(string $value): ?string
    {
        foreach ($this->inUse() as $word) {
            if (Spelling::bare($word) === Spelling::bare($value)) {
                return $word;
            }
        }

        return null;
    }

    /** @return list<string> the words in use */
    public function inUse(): array
    {
        return array_map(
            strval(...),
            array_keys(array_filter($this->words, static fn (?string $successor): bool => $successor === null)),
        );
    }
}
