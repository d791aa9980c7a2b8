<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings\Path;

use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\PathRule;
use Vestigon\Core\Findings\Severity;
use Vestigon\Core\Findings\Standing;
use Vestigon\Core\Template\Element\CatalogueToken;

/** frozen-name: the platform sends the name that the element had when it was published, and that has changed since. */
final readonly class FrozenName implements PathRule
{
    public function check(Standing $standing): iterable
    {
        if (! $standing->path->dialect->namesFreeze) {
            return;
        }
        $used = [];
        foreach ($standing->parts() as [$part]) {
            if ($part instanceof CatalogueToken) {
                $used[$part->token->field] = $part->source;
            }
        }
        foreach ($standing->path->nodes as $node) {
            $field = ($standing->path->dialect->level($node->level)->role->value ?? '').'.name';
            if ($node->publishedName !== null && $node->publishedName !== $node->name && isset($used[$field])) {
                $level = $standing->levelLabel($node);
                yield new Finding(
                    'frozen-name',
                    Severity::Warning,
                    "{$used[$field]} still sends “{$node->publishedName}”; the {$level} is called “{$node->name}” now.",
                    $node,
                );
            }
        }
    }
}
