<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** An account as it is and as it was: which texts stood where, and since when. */
final readonly class History
{
    /** @param array<string, list<PastText>> $texts by node, of the places that are told of, all that ever stood there */
    public function __construct(public Account $account, private array $texts = []) {}

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

    /** @return list<Version> an ad as it stood, the last first: its time is cut where a text on its path changed */
    public function versions(string $ad): array
    {
        $path = $this->account->pathTo($ad);
        $keys = $this->account->keysTo($ad);
        $bounds = [];
        foreach ($keys as $key) {
            foreach ($this->texts[$key] ?? [] as $text) {
                array_push($bounds, $text->since, $text->until);
            }
        }
        $bounds = array_values(array_unique(array_filter($bounds, static fn (?int $b): bool => $b !== null)));
        sort($bounds);
        $versions = [];
        foreach ([null, ...$bounds] as $i => $since) {
            $until = $bounds[$i] ?? null;
            $at = $since ?? ($until === null ? 0 : $until - 1);
            $nodes = array_map(fn (Node $n, string $key): Node => $this->nodeAt($n, $key, $at), $path->nodes, $keys);
            array_unshift($versions, new Version($ad, new Path($path->dialect, $nodes), $since, $until));
        }

        return $versions;
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
