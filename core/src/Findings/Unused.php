<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Role;

/** custom-parameter-unused: a custom parameter that no ad below uses. */
final class Unused
{
    /** @var array<string, true> level, node and name of those that are used */
    private array $used = [];

    public function __construct(private readonly Account $wide) {}

    /** Takes note of what the texts of an ad use. */
    public function used(Standing $ad): void
    {
        foreach ($ad->texts->customs->owners() as $name => $node) {
            $this->used[self::id($node->level, $node->id, (string) $name, $ad->path)] = true;
        }
    }

    /** @return array<string, true> what was used so far */
    public function seen(): array
    {
        return $this->used;
    }

    /** @param array<string, true> $used by other ads */
    public function take(array $used): void
    {
        $this->used += $used;
    }

    /** @return list<Finding> of what stands above the ads */
    public function findings(): array
    {
        $found = [];
        $ads = $this->wide->dialect->levelOf(Role::Ad)?->id;
        foreach ($this->wide->nodes as $key => $node) {
            foreach ($node->level === $ads ? [] : $node->custom as $name => $text) {
                if (
                    ! isset(
                        $this->used[
                            self::id(
                                $node->level,
                                $node->id,
                                (string) $name,
                                new Path($this->wide->dialect, [$node]),
                            )
                        ],
                    )
                ) {
                    $prefix = $this->wide->dialect->customParameters->prefix ?? '';
                    $found[] = new Finding(
                        'custom-parameter-unused',
                        Severity::Note,
                        "No ad below uses {$prefix}{$name}.",
                        $node,
                        null,
                        (string) $name,
                        fix: new Fix("clear {$prefix}{$name}", null),
                    );
                }
            }
        }

        return $found;
    }

    private static function id(string $level, string $node, string $name, Path $path): string
    {
        return "{$level} {$node} ".($path->dialect->syntax?->folded($name) ?? $name);
    }
}
