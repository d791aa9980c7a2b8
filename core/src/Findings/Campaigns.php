<?php

declare(strict_types=1);

namespace Vestigon\Core\Findings;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Plan\Slug;

/** The campaigns of an account, to find whom a value names. */
final readonly class Campaigns
{
    private const SHORTEST = 3;

    /** @param array<string, list<Node>> $byWord names without case and separators, and ids */
    public function __construct(private array $byWord = []) {}

    public static function of(Account $account): self
    {
        $level = $account->dialect->levelOf(Role::Campaign)?->id;
        $byWord = [];
        foreach ($account->nodes as $node) {
            if ($node->level === $level) {
                foreach (array_unique([self::bare($node->name), $node->id]) as $word) {
                    if (mb_strlen($word) >= self::SHORTEST) {
                        $byWord[$word][] = $node;
                    }
                }
            }
        }

        return new self($byWord);
    }

    /** The campaign that a value names, if it is another one than this. */
    public function other(string $value, Node $than): ?Node
    {
        $named = $this->byWord[self::bare($value)] ?? ($this->byWord[$value] ?? []);
        foreach ($named as $node) {
            if ($node->id === $than->id || self::bare($node->name) === self::bare($than->name)) {
                return null;
            }
        }

        return $named[0] ?? null;
    }

    private static function bare(string $name): string
    {
        return str_replace(['_', '-', '.'], '', Slug::of($name));
    }
}
