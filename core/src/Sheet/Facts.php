<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/**
 * What is said of an element. An empty text is said too: it clears what was there; what is not in a list is not
 * spoken of.
 */
final readonly class Facts
{
    /**
     * @param array<string, string> $slots by slot kind
     * @param array<string, string> $custom custom parameters by name
     * @param bool $isAllCustom are these all that it has?
     * @param array<string, string> $attributes by name
     * @param array<string, string> $settings what an account switches, by name; never empty
     */
    public function __construct(
        public string $name = '',
        public ?string $type = null,
        public ?Serving $serving = null,
        public ?string $publishedName = null,
        public array $slots = [],
        public array $custom = [],
        public bool $isAllCustom = false,
        public array $attributes = [],
        public array $settings = [],
    ) {}

    /** Do two rows say different things of one element, where both say something? */
    public function differsFrom(self $other): bool
    {
        foreach (
            [
                [['name' => $this->name], ['name' => $other->name]],
                [['type' => $this->type ?? ''], ['type' => $other->type ?? '']],
                [['serving' => $this->serving->value ?? ''], ['serving' => $other->serving->value ?? '']],
                [$this->slots, $other->slots],
                [$this->custom, $other->custom],
                [$this->attributes, $other->attributes],
                [$this->settings, $other->settings],
            ] as [$mine, $theirs]
        ) {
            foreach ($mine as $what => $text) {
                $its = $theirs[$what] ?? '';
                if ($text !== '' && $its !== '' && $text !== $its) {
                    return true;
                }
            }
        }

        return false;
    }

    /** Both together; where both say something, what comes later counts. */
    public function and(self $later): self
    {
        return new self(
            $later->name === '' ? $this->name : $later->name,
            $later->type ?? $this->type,
            $later->serving ?? $this->serving,
            $later->publishedName ?? $this->publishedName,
            self::filled($this->slots, $later->slots),
            self::filled($this->custom, $later->custom),
            $this->isAllCustom || $later->isAllCustom,
            self::filled($this->attributes, $later->attributes),
            self::filled($this->settings, $later->settings),
        );
    }

    /**
     * What is known, with what is said now: what is said to be empty is no more, what is not spoken of stays.
     *
     * @param string $name as it is said anywhere
     * @param string|null $type the same
     */
    public function overlaid(self $now, string $name, ?string $type): self
    {
        return new self(
            $name === '' ? $this->name : $name,
            $type ?? $this->type,
            $now->serving ?? ($this->serving === Serving::Gone ? null : $this->serving),
            $now->publishedName ?? $this->publishedName,
            $now->slots + $this->slots,
            $now->isAllCustom ? $now->custom : $now->custom + $this->custom,
            $this->isAllCustom,
            $now->attributes + $this->attributes,
            $now->settings + $this->settings,
        );
    }

    /** @return array<string, mixed> as part of a node of an account document */
    public function written(): array
    {
        return array_filter(
            [
                'slots' => self::some($this->slots),
                'custom' => self::some($this->custom),
                'attributes' => self::some($this->attributes),
                'publishedName' => $this->publishedName,
                'standing' => $this->serving?->value,
            ],
            static fn (mixed $said): bool => $said !== [] && $said !== null,
        );
    }

    /**
     * @param array<string, string> $texts
     * @return array<string, string>
     */
    private static function some(array $texts): array
    {
        return array_filter($texts, static fn (string $text): bool => $text !== '');
    }

    /**
     * @param array<string, string> $first
     * @param array<string, string> $later
     * @return array<string, string>
     */
    private static function filled(array $first, array $later): array
    {
        foreach ($later as $what => $text) {
            if ($text !== '' || ! isset($first[$what])) {
                $first[$what] = $text;
            }
        }

        return $first;
    }
}
