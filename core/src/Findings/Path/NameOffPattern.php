<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;
use Vestigon\Core\Naming\Patterns;

/** name-off-pattern: a name does not follow the pattern that people have agreed on for such elements. */
final readonly class NameOffPattern implements PathRule
{
    public function __construct(private Patterns $patterns) {}

    public function check(Standing $standing): iterable
    {
        $dialect = $standing->path->dialect;
        $type = null;
        foreach ($this->patterns->all === [] ? [] : $standing->path->nodes as $node) {
            $type = $node->type ?? $type;
            $pattern = $this->patterns->for($dialect, $node->level, $type);
            $trouble = $pattern?->read($node->name)->trouble[0] ?? null;
            if ($pattern !== null && $trouble !== null) {
                $proposed = $pattern->proposed($node->name);
                yield new Finding(
                    'name-off-pattern',
                    Severity::Warning,
                    "“{$node->name}” is off its pattern: {$trouble->why}"
                        .($proposed === null ? '.' : "; “{$proposed}” is meant, it seems."),
                    $node,
                );
            }
        }
    }
}
