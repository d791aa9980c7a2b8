<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** An account as it is and as it was: which texts stood where, and since when. */
final readonly class History
{
    /** @param list<PastText> $texts of the places that are told of, all that ever stood there */
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
            $read[] = $text;
        }

        return new self($account, $read);
    }

    /** The account at an instant; of places that nothing is told of, as it is. */
    public function at(int $at): Account
    {
        $nodes = [];
        foreach ($this->texts as $text) {
            $node = $nodes[$text->node] ??= $this->account->nodes[$text->node];
            $nodes[$text->node] = $text->outOf($node);
        }
        foreach ($this->texts as $text) {
            if ($text->stoodAt($at)) {
                $nodes[$text->node] = $text->in($nodes[$text->node]);
            }
        }

        return $nodes === [] ? $this->account : $this->account->with($nodes);
    }

    /**
     * One instant of each time between two changes, the last first.
     *
     * @return non-empty-list<int>
     */
    public function times(): array
    {
        $times = [PHP_INT_MAX - 1];
        foreach ($this->texts as $text) {
            foreach ([$text->since, $text->until] as $bound) {
                if ($bound !== null) {
                    $times[] = $bound - 1;
                    $times[] = $bound;
                }
            }
        }
        $times = array_values(array_unique($times));
        rsort($times);
        $seen = [];
        foreach ($times as $at) {
            $standing = array_keys(array_filter($this->texts, static fn (PastText $t): bool => $t->stoodAt($at)));
            $seen[implode(' ', $standing)] ??= $at;
        }

        return array_values($seen);
    }

    /**
     * Since when, and until when, the texts on a path stood as they did at an instant.
     *
     * @param list<string> $path keys
     * @return array{int|null, int|null} null: nobody knows since when; they still do
     */
    public function stood(array $path, int $at): array
    {
        $since = $until = null;
        foreach ($this->texts as $text) {
            foreach (in_array($text->node, $path, true) ? [$text->since, $text->until] : [] as $bound) {
                if ($bound === null) {
                    continue;
                }
                if ($bound <= $at) {
                    $since = max($since ?? $bound, $bound);
                } else {
                    $until = min($until ?? $bound, $bound);
                }
            }
        }

        return [$since, $until];
    }
}
