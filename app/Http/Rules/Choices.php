<?php

namespace App\Http\Rules;

use Closure;
use Illuminate\Contracts\Validation\ValidationRule;

/** A list of some of a few words, each once. */
final readonly class Choices implements ValidationRule
{
    /** @param list<string> $of */
    public function __construct(private array $of) {}

    public function validate(string $attribute, mixed $value, Closure $fail): void
    {
        $fits =
            is_array($value)
            && array_is_list($value)
            && count($value) <= count($this->of)
            && array_filter($value, fn (mixed $v): bool => ! in_array($v, $this->of, true)) === []
            && count(array_unique($value)) === count($value);
        if (! $fits) {
            $fail('A list is wanted of '.implode(', ', $this->of).', each at most once.');
        }
    }
}
