<?php

declare(strict_types=1);

namespace Vestigon\Core\Sheet;

/** The numbers, names and types that a row gives, of its own element and of those above it. */
final class Names
{
    /** @var array<string, array<string, string>> by what is said (id, name, type), then level; '' is the row's own */
    private array $said = [];

    public function add(Meaning $means, string $cell): void
    {
        if ($cell !== '') {
            $this->said[$means->says->value][$means->level ?? ''] ??= $cell;
        }
    }

    public function of(Says $what, string $level, bool $isOwn): string
    {
        $said = $this->said[$what->value] ?? [];

        return ($isOwn ? $said[''] ?? null : null) ?? $said[$level] ?? '';
    }
}
