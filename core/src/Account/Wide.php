<?php

declare(strict_types=1);

namespace Vestigon\Core\Account;

use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;

/**
 * Which of an account's nodes stand above its ads. Few do, and they are asked for again and again: they are looked for
 * once, when first asked for, and again for no account that differs in what its nodes say alone.
 */
final class Wide
{
    /** @var list<string>|null */
    private ?array $keys = null;

    /**
     * @param array<string, Node> $nodes of the account
     * @return list<string> keys, wider levels first
     */
    public function keys(Dialect $dialect, array $nodes): array
    {
        return $this->keys ??= self::found($dialect, $nodes);
    }

    /**
     * @param array<string, Node> $nodes
     * @return list<string>
     */
    private static function found(Dialect $dialect, array $nodes): array
    {
        $ads = $dialect->levelOf(Role::Ad)?->id;
        $byLevel = array_fill_keys(array_column($dialect->levels, 'id'), []);
        foreach ($nodes as $key => $node) {
            if ($node->level !== $ads) {
                $byLevel[$node->level][] = (string) $key;
            }
        }

        return array_merge(...array_values($byLevel));
    }
}
