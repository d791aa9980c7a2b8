<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** An account as it is and as it was: which texts stood where, and since when. */
final class History
{
    /** @var array<string, list<int>|null> by what ads stand under: when a text of it changed; null: none is told of */
    private array $above = [];

    /** @param array<string, list<PastText>> $texts by node, of the places that are told of, all that ever stood there */
    public function __construct(public readonly Account $account, private readonly array $texts = []) {}

    /** @throws UnusableInput */
    public static function read(Account $account, Cursor $texts): self
    {
        $read = [];
        foreach ($texts->list() as $c) {
            $text = PastText::read($c);
            if (! isset($account->nodes[$text->node])) {
                $c->at('node')->fail("there is no node \"{$text->node}\"");
            }
            $read[$text->node][] = $text;
        }

        return new self($account, $read);
    }

    /** Is an ad, and all above it, as it always was, as far as anything is told? */
    public function isUnchanged(string $ad): bool
    {
        return ! isset($this->texts[$ad]) && $this->boundsAbove($ad) === null;
    }

    /** @return list<Version> an ad as it stood, the last first: its time is cut where a text on its path changed */
    public function versions(string $ad): array
    {
        if ($this->isUnchanged($ad)) {
            return [new Version($this, $ad, null, null)];
        }
        $bounds = array_values(array_unique([...$this->boundsAbove($ad) ?? [], ...$this->bounds([$ad]) ?? []]));
        sort($bounds);
        $versions = [];
        foreach ([null, ...$bounds] as $i => $since) {
            array_unshift($versions, new Version($this, $ad, $since, $bounds[$i] ?? null));
        }

        return $versions;
    }

    /** An ad and all above it as they stood at an instant. */
    public function path(string $ad, int $at): Path
    {
        $path = $this->account->pathTo($ad);

        return $this->isUnchanged($ad)
            ? $path
            : new Path(
                $path->dialect,
                array_map(
                    fn (Node $n, string $key): Node => $this->nodeAt($n, $key, $at),
                    $path->nodes,
                    $this->account->keysTo($ad),
                ),
            );
    }

    /** One of the fields of an ad itself as the platform knows it, as Path::fields() has it; null: it has none such. */
    public function ownFact(string $ad, string $field): ?string
    {
        $node = $this->account->nodes[$ad];

        return match ($field) {
            'ad.id' => $node->id,
            'ad.name' => $this->account->dialect->namesFreeze ? $node->publishedName ?? $node->name : $node->name,
            default => $node->attributes[substr($field, strlen('ad.'))] ?? null,
        };
    }

    /** @return list<int>|null */
    private function boundsAbove(string $ad): ?array
    {
        $parent = $this->account->parents[$ad] ?? null;
        if ($parent === null || $this->texts === []) {
            return null;
        }

        return array_key_exists($parent, $this->above)
            ? $this->above[$parent]
            : ($this->above[$parent] = $this->bounds($this->account->keysTo($parent)));
    }

    /**
     * @param list<string> $keys
     * @return list<int>|null
     */
    private function bounds(array $keys): ?array
    {
        $bounds = null;
        foreach ($keys as $key) {
            foreach ($this->texts[$key] ?? [] as $text) {
                $bounds ??= [];
                array_push($bounds, ...array_filter([$text->since, $text->until], is_int(...)));
            }
        }

        return $bounds;
    }

    private function nodeAt(Node $node, string $key, int $at): Node
    {
        foreach ($this->texts[$key] ?? [] as $text) {
            $node = $text->outOf($node);
        }
        foreach ($this->texts[$key] ?? [] as $text) {
            $node = $text->stoodAt($at) ? $text->in($node) : $node;
        }

        return $node;
    }
}
