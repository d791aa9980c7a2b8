<?php

declare(strict_types=1);

namespace Standins\Ads;

/** One ad platform: what it takes, and how its servers put a click URL together from what they have stored. */
abstract readonly class Platform
{
    public const ROLES = ['account', 'folder', 'campaign', 'group', 'ad'];

    /** @param array<string, string> $levels level → its role, widest first */
    public function __construct(
        public string $host,
        public string $title,
        public string $secret,
        public string $clickPrefix,
        public array $levels,
    ) {}

    /**
     * The URL that a click opens. Written from the platform's rules, not from the application's code, so that each can
     * find the other's mistakes.
     *
     * @param array<string, string> $facts of the click: term, match, device, net, placement, surface, publisher,
     *     publisherId, page, product, click, chance
     * @param array<string, mixed> $settings of the account
     */
    abstract public function click(AdPath $path, array $facts, array $settings): string;

    /** @return array<string, array{list<string>, int}> slot → the levels that have it, and its longest text */
    abstract protected function slots(): array;

    /**
     * Why the platform will not store a text; null if it will.
     *
     * @param string $column slots or custom
     * @param array<string, string> $after all slots or custom parameters of the node as they would be
     */
    public function problem(string $level, string $column, string $name, ?string $value, array $after): ?string
    {
        if ($column === 'custom') {
            return $this->customProblem($level, $name, $value, $after);
        }
        [$levels, $longest] = $this->slots()[$name] ?? [[], 0];

        return match (true) {
            ! in_array($level, $levels, true) => "a {$level} has no slot \"{$name}\"",
            $value !== null && mb_strlen($value) > $longest => "the {$name} has more than {$longest} characters",
            default => null,
        };
    }

    /**
     * Why the platform will not switch an account so; null if it will.
     *
     * @param bool|string|null $value null: as it is where nobody has switched it
     */
    public function switchProblem(string $level, string $name, bool|string|null $value): ?string
    {
        $choices = $this->switches()[$name] ?? null;

        return match (true) {
            $level !== array_key_first($this->levels) || $choices === null => "a {$level} has no switch \"{$name}\"",
            $value !== null && ! in_array($value, $choices, true) => "{$name} can't be switched to "
                .json_encode($value),
            default => null,
        };
    }

    /** @return array<string, list<bool|string>> what an account can be switched to */
    protected function switches(): array
    {
        return [];
    }

    /** @param array<string, string> $after */
    protected function customProblem(string $level, string $name, ?string $value, array $after): ?string
    {
        return "{$this->title} has no custom parameters";
    }

    public function adLevel(): string
    {
        return (string) array_key_last($this->levels);
    }
}
