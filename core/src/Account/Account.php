<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/** A whole account tree. */
final readonly class Account
{
    /**
     * @param list<Hop> $hops the redirects that its clicks may pass
     * @param array<string, Node> $nodes by key (any text that is unique in the account)
     * @param array<string, string|null> $parents node key → its parent's; null for the account
     */
    public function __construct(
        public Dialect $dialect,
        public Settings $settings,
        public array $hops,
        public array $nodes,
        public array $parents,
        private Wide $wide = new Wide(),
    ) {}

    /** @return list<string> keys from the account down to the node */
    public function keysTo(string $key): array
    {
        $keys = [];
        for ($at = $key; $at !== null; $at = $this->parents[$at] ?? null) {
            $keys[] = $at;
        }

        return array_reverse($keys);
    }

    public function pathTo(string $key): Path
    {
        $nodes = array_map(fn (string $k): Node => $this->nodes[$k], $this->keysTo($key));

        return $nodes === []
            ? throw new \LogicException('a node has at least itself on its path')
            : new Path($this->dialect, $nodes);
    }

    /** @return iterable<string, Path> every ad's path, by the ad's key */
    public function ads(): iterable
    {
        foreach ($this->adNodes() as $key => $node) {
            yield $key => $this->pathTo($key);
        }
    }

    /** @return iterable<string, Node> every ad by its key; for those who need no paths */
    public function adNodes(): iterable
    {
        $level = $this->dialect->levelOf(Role::Ad)?->id;
        foreach ($this->nodes as $key => $node) {
            if ($node->level === $level) {
                yield (string) $key => $node;
            }
        }
    }

    /** @return iterable<string, Node> what stands above the ads, wider levels first */
    public function wideNodes(): iterable
    {
        foreach ($this->wide->keys($this->dialect, $this->nodes) as $key) {
            yield $key => $this->nodes[$key];
        }
    }

    /** @return iterable<string, Node> what stands on a level */
    public function nodesOn(?string $level): iterable
    {
        if ($level === $this->dialect->levelOf(Role::Ad)?->id) {
            yield from $this->adNodes();

            return;
        }
        foreach ($this->wideNodes() as $key => $node) {
            if ($node->level === $level) {
                yield $key => $node;
            }
        }
    }

    /**
     * The account with some of its nodes.
     *
     * @param array<string, mixed> $keys by their keys
     */
    public function only(array $keys): self
    {
        $nodes = array_intersect_key($this->nodes, $keys);

        return new self(
            $this->dialect,
            $this->settings,
            $this->hops,
            $nodes,
            array_intersect_key($this->parents, $nodes),
        );
    }

    /** @param array<string, Node> $changed */
    public function with(array $changed): self
    {
        return new self(
            $this->dialect,
            $this->settings,
            $this->hops,
            array_replace($this->nodes, $changed),
            $this->parents,
            $this->wide,
        );
    }

    /** The same account on a platform that is a little different. */
    public function on(Dialect $dialect): self
    {
        return new self($dialect, $this->settings, $this->hops, $this->nodes, $this->parents);
    }

    /** The same account, otherwise switched. */
    public function switched(Settings $settings): self
    {
        return $settings->is($this->settings)
            ? $this
            : new self($this->dialect, $settings, $this->hops, $this->nodes, $this->parents, $this->wide);
    }

    /** Do all names or other facts of a field have a shape already? */
    public function allHave(string $field, \Closure $shape): bool
    {
        [$role, $fact] = explode('.', $field, 2) + [1 => ''];
        $owner = Role::tryFrom($role);
        $level = $owner === null ? null : $this->dialect->levelOf($owner)?->id;
        foreach ($this->nodesOn($level) as $node) {
            $value = match ($fact) {
                'id' => $node->id,
                'name' => $node->name,
                default => $node->attributes[$fact] ?? '',
            };
            if ($shape($value) !== $value) {
                return false;
            }
        }

        return true;
    }
}
