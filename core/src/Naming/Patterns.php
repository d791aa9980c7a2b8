<?php

declare(strict_types=1);

namespace Vestigon\Core\Naming;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/**
 * The patterns that names follow, in order: the first that is for an element counts for it; where there is none, its
 * name is free.
 *
 * The parts of a name are facts of its element: `campaign.part.market` is a field like any other.
 */
final class Patterns
{
    /** What the facts that are read out of names begin with. */
    public const FACT = 'part.';

    /** Roles of the elements whose names can have parts. */
    private const NAMED = ['folder', 'campaign', 'group', 'ad'];

    /** The platform that was asked for last. */
    private ?Dialect $dialect = null;

    /** @var array<string, array<string, Pattern|null>> those that were asked for there, by level and type */
    private array $known = [];

    /** @param list<Pattern> $all */
    public function __construct(public readonly array $all = []) {}

    /** @throws UnusableInput with the place of the first thing that is wrong */
    public static function read(Cursor $list): self
    {
        return new self(array_map(PatternReader::read(...), $list->list()));
    }

    /** @return list<string> the fields that names give, like `campaign.part.market` */
    public function fields(): array
    {
        $fields = [];
        foreach ($this->all as $pattern) {
            foreach ($pattern->parts as $part) {
                foreach (array_intersect($pattern->for->levels ?? self::NAMED, self::NAMED) as $role) {
                    $fields[] = "{$role}.".self::FACT.$part->name;
                }
            }
        }

        return array_values(array_unique($fields));
    }

    /** @param string|null $type of the campaign that it is or stands under */
    public function for(Dialect $dialect, string $level, ?string $type): ?Pattern
    {
        if ($this->dialect !== $dialect) {
            [$this->dialect, $this->known] = [$dialect, []];
        }
        $type ??= '';
        if (! isset($this->known[$level]) || ! array_key_exists($type, $this->known[$level])) {
            $fits = static fn (Pattern $p): bool => $p->for->fits($dialect, $level, $type === '' ? null : $type);
            $this->known[$level][$type] = array_values(array_filter($this->all, $fits))[0] ?? null;
        }

        return $this->known[$level][$type];
    }

    /** An element with the parts of its name; the same where it follows no pattern. */
    public function named(Node $node, Dialect $dialect, ?string $type): Node
    {
        $parts = $this->for($dialect, $node->level, $type)?->parts($node->name);
        if ($parts === null) {
            return $node;
        }
        $facts = [];
        foreach ($parts as $part => $text) {
            $facts[self::FACT.$part] = $text;
        }

        return $node->withFacts($facts);
    }

    /** The path with the parts of all its names. */
    public function on(Path $path): Path
    {
        if ($this->all === []) {
            return $path;
        }
        $type = null;
        $named = [];
        foreach ($path->nodes as $node) {
            $type = $node->type ?? $type;
            $named[] = $this->named($node, $path->dialect, $type);
        }

        return new Path($path->dialect, $named);
    }

    /** The account with the parts of all names. */
    public function in(Account $account): Account
    {
        if ($this->all === []) {
            return $account;
        }
        $types = $named = [];
        foreach ($account->nodes as $key => $node) {
            $types[$key] = $node->type ?? $types[$account->parents[$key] ?? ''] ?? null;
            $named[$key] = $this->named($node, $account->dialect, $types[$key]);
        }

        return $account->with($named);
    }
}
