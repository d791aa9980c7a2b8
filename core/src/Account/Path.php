<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;

/** The nodes from the account down to one ad (or to a node on the way). */
final readonly class Path
{
    /** @param non-empty-list<Node> $nodes widest first */
    public function __construct(public Dialect $dialect, public array $nodes) {}

    public function campaignType(): ?string
    {
        return $this->withRole(Role::Campaign)?->type;
    }

    /** How deep campaigns stand on this platform; null if it has none. */
    public function campaignDepth(): ?int
    {
        return $this->dialect->levelOf(Role::Campaign)?->depth;
    }

    public function withRole(Role $role): ?Node
    {
        foreach ($this->nodes as $node) {
            if ($this->dialect->level($node->level)?->role === $role) {
                return $node;
            }
        }

        return null;
    }

    public function last(): Node
    {
        return $this->nodes[count($this->nodes) - 1];
    }

    /**
     * The neutral fields that the path itself gives.
     *
     * @param bool $published give the names that frozen names have; else the names as they are now
     * @return array<string, string>
     */
    public function fields(bool $published): array
    {
        $fields = [];
        foreach ($this->nodes as $node) {
            $role = $this->dialect->level($node->level)->role->value ?? $node->level;
            $fields["{$role}.id"] = $node->id;
            $fields["{$role}.name"] = $published ? $node->publishedName ?? $node->name : $node->name;
            foreach ($node->attributes as $name => $value) {
                $fields["{$role}.{$name}"] = $value;
            }
        }

        return $fields;
    }

    /** The nearest node, ad first, that has the custom parameter at a level where the platform has them. */
    public function ownerOf(string $customParameter): ?CustomValue
    {
        $syntax = $this->dialect->syntax;
        $wanted = $syntax?->folded($customParameter) ?? $customParameter;
        foreach (array_reverse($this->nodes) as $node) {
            if (! in_array($node->level, $this->dialect->customParameters->levels ?? [], true)) {
                continue;
            }
            foreach ($node->custom as $name => $text) {
                if (($syntax?->folded((string) $name) ?? $name) === $wanted) {
                    return new CustomValue($node, $text);
                }
            }
        }

        return null;
    }
}
