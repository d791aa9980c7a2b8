<?php

declare(strict_types=1);

namespace Standins\Ads;

/** An ad and all above it, as the platform has them stored. */
final readonly class AdPath
{
    /** @var array<string, array<string, mixed>> */
    private array $rows;

    /** @param array<string, array<string, mixed>> $rows level → row of the store, widest first */
    public function __construct(array $rows)
    {
        $this->rows = array_map(
            static fn (array $row): array => [
                ...$row,
                'slots' => json_decode((string) $row['slots'], true),
                'custom' => json_decode((string) $row['custom'], true),
                'facts' => json_decode((string) $row['facts'], true),
            ],
            $rows,
        );
    }

    public function id(string $level): string
    {
        return (string) $this->rows[$level]['id'];
    }

    public function name(string $level): string
    {
        return (string) $this->rows[$level]['name'];
    }

    /** The name that it had when it was published. */
    public function publishedName(string $level): string
    {
        return (string) ($this->rows[$level]['published'] ?? $this->rows[$level]['name']);
    }

    public function type(): string
    {
        return (string) ($this->rows['campaign']['type'] ?? '');
    }

    public function fact(string $level, string $name): string
    {
        return (string) ($this->rows[$level]['facts'][$name] ?? '');
    }

    /** A slot's text as it counts: trimmed, null if blank. */
    public function text(string $level, string $slot): ?string
    {
        $text = trim($this->rows[$level]['slots'][$slot] ?? '');

        return $text === '' ? null : $text;
    }

    /** @param list<string> $levels widest first */
    public function nearest(string $slot, array $levels): ?string
    {
        foreach (array_reverse($levels) as $level) {
            if (($text = $this->text($level, $slot)) !== null) {
                return $text;
            }
        }

        return null;
    }

    /** @param list<string> $levels widest first */
    public function custom(string $name, array $levels): ?string
    {
        foreach (array_reverse($levels) as $level) {
            foreach ($this->rows[$level]['custom'] as $key => $value) {
                if (strcasecmp((string) $key, $name) === 0) {
                    return (string) $value;
                }
            }
        }

        return null;
    }
}
