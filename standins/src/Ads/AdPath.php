<?php

declare(strict_types=1);

namespace Standins\Ads;

/** An ad and all above it, as the platform has them stored. */
final readonly class AdPath
{
    /** @param array<string, array<string, mixed>> $rows level → row of the store, widest first */
    public function __construct(private array $rows) {}

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
        return (string) (json_decode((string) $this->rows[$level]['facts'], true)[$name] ?? '');
    }

    /** A slot's text as it counts: trimmed, null if blank. */
    public function text(string $level, string $slot): ?string
    {
        $text = trim(json_decode((string) $this->rows[$level]['slots'], true)[$slot] ?? '');

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
            foreach (json_decode((string) $this->rows[$level]['custom'], true) as $key => $value) {
                if (strcasecmp((string) $key, $name) === 0) {
                    return (string) $value;
                }
            }
        }

        return null;
    }
}
