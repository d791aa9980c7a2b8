<?php

declare(strict_types=1);

namespace Vestigon\Core\Document;

/**
 * A place in a decoded JSON document. Reads typed values and knows its own place for error messages (`tokens[3].kind`).
 */
final readonly class Cursor
{
    public function __construct(public mixed $value, public string $place = '') {}

    /** @throws UnusableInput if the text is no JSON; says what the parser said */
    public static function json(string $text, string $place = ''): self
    {
        try {
            return new self(json_decode($text, true, 512, JSON_THROW_ON_ERROR), $place);
        } catch (\JsonException $e) {
            throw UnusableInput::at($place, 'is not JSON ('.$e->getMessage().')');
        }
    }

    public function fail(string $problem): never
    {
        throw UnusableInput::at($this->place, $problem);
    }

    public function has(string $key): bool
    {
        return is_array($this->value) && isset($this->value[$key]);
    }

    public function at(string $key): self
    {
        $here = $this->place === '' ? $key : $this->place.'.'.$key;

        return new self($this->object()[$key] ?? null, $here);
    }

    /** @return array<string, mixed> */
    public function object(): array
    {
        if (! is_array($this->value) || ($this->value !== [] && array_is_list($this->value))) {
            $this->fail('an object is wanted, '.$this->kind().' given');
        }
        $object = [];
        foreach ($this->value as $key => $value) {
            $object[(string) $key] = $value;
        }

        return $object;
    }

    /** @return list<self> */
    public function list(): array
    {
        if (! is_array($this->value) || ! array_is_list($this->value)) {
            $this->fail('a list is wanted, '.$this->kind().' given');
        }
        $items = [];
        foreach ($this->value as $i => $item) {
            $items[] = new self($item, "{$this->place}[{$i}]");
        }

        return $items;
    }

    /** @return array<string, self> */
    public function map(): array
    {
        $map = [];
        foreach (array_keys($this->object()) as $key) {
            $map[$key] = $this->at((string) $key);
        }

        return $map;
    }

    /** @return list<string> */
    public function strings(): array
    {
        return array_map(static fn (self $item): string => $item->string(), $this->list());
    }

    /** @return array<string, string> numbers are taken as their text */
    public function stringMap(): array
    {
        return array_map(static fn (self $item): string => $item->text(), $this->map());
    }

    public function string(): string
    {
        return is_string($this->value)
            ? $this->value
            : $this->fail('text is wanted, '.$this->kind().' given');
    }

    /** Text, or a whole number as its digits (identifiers are often typed as numbers). */
    public function text(): string
    {
        return is_int($this->value) ? (string) $this->value : $this->string();
    }

    /** @return non-empty-string */
    public function someText(): string
    {
        $text = $this->string();

        return $text === '' ? $this->fail('at least one character is wanted') : $text;
    }

    public function atLeast(int $least): int
    {
        return $this->int() >= $least ? $this->int() : $this->fail("a number of at least {$least} is wanted");
    }

    public function int(): int
    {
        return is_int($this->value)
            ? $this->value
            : $this->fail('a whole number is wanted, '.$this->kind().' given');
    }

    public function number(): float
    {
        return is_int($this->value) || is_float($this->value)
            ? (float) $this->value
            : $this->fail('a number is wanted, '.$this->kind().' given');
    }

    public function bool(): bool
    {
        return is_bool($this->value)
            ? $this->value
            : $this->fail('true or false is wanted, '.$this->kind().' given');
    }

    /**
     * @template T of \BackedEnum
     *
     * @param class-string<T> $enum
     * @return T
     */
    public function enum(string $enum): \BackedEnum
    {
        $case = $enum::tryFrom($this->string());

        return $case
            ?? $this->fail(
                sprintf(
                    '"%s" is not one of %s',
                    $this->string(),
                    implode(
                        ', ',
                        array_map(static fn (\BackedEnum $c): string => (string) $c->value, $enum::cases()),
                    ),
                ),
            );
    }

    private function kind(): string
    {
        return match (true) {
            $this->value === null => 'nothing',
            is_array($this->value) => array_is_list($this->value) ? 'a list' : 'an object',
            is_string($this->value) => 'text',
            is_bool($this->value) => 'true/false',
            default => 'a number',
        };
    }
}
