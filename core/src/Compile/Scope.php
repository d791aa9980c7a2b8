<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Trace\Settings;

/** The part of an account that may be written to, with what stands above it. */
final readonly class Scope
{
    /**
     * @param array<string, true> $fixed what stands above and may not be written to
     * @param Account|null $today the account as it is, where this is already another
     */
    private function __construct(public Account $account, private array $fixed, private ?Account $today = null) {}

    /** The account as it is: what arrives there and is not the plan's is not to be lost. */
    public function today(): Account
    {
        return $this->today ?? $this->account;
    }

    /** The same, held against the account as it is. */
    public function since(Account $today): self
    {
        return new self($this->account, $this->fixed, $today);
    }

    /** The same with the account's settings switched, held against the account as it is. */
    public function switched(Settings $settings): self
    {
        return $settings->is($this->account->settings)
            ? $this
            : new self($this->account->switched($settings), $this->fixed, $this->today());
    }

    /** May the account itself be written to? */
    public function isWhole(): bool
    {
        return $this->fixed === [];
    }

    public static function whole(Account $account): self
    {
        return new self($account, []);
    }

    /** @param list<string> $nodes with all below them */
    public static function within(Account $account, array $nodes): self
    {
        $wanted = array_fill_keys($nodes, true);
        $above = [];
        foreach ($nodes as $key) {
            foreach (isset($account->nodes[$key]) ? array_slice($account->keysTo($key), 0, -1) : [] as $up) {
                $above[$up] = true;
            }
        }
        $inside = static function (string $key) use ($account, &$wanted): bool {
            $way = [];
            for ($at = $key; $at !== null && ! isset($wanted[$at]); $at = $account->parents[$at] ?? null) {
                $way[] = $at;
            }
            foreach ($at === null ? [] : $way as $found) {
                $wanted[$found] = true;
            }

            return $at !== null;
        };
        $isIn = static fn (string|int $key): bool => isset($above[$key]) || $inside((string) $key);
        $part = $account->only(array_filter($account->nodes, $isIn, ARRAY_FILTER_USE_KEY));

        return new self($part, array_diff_key($above, $wanted));
    }

    /** The same for an account of fewer nodes. */
    public function for(Account $account): self
    {
        return new self($account, $this->fixed, $this->today);
    }

    public function isFixed(string $key): bool
    {
        return isset($this->fixed[$key]);
    }

    /** May the node be written to, and nothing above it? */
    public function isTop(string $key): bool
    {
        return isset($this->fixed[$this->account->parents[$key] ?? '']) && ! isset($this->fixed[$key]);
    }

    /**
     * @return list<string> where what belongs on a node can be written: on it, or below it on the widest nodes that may
     *     be
     */
    public function writableFor(string $key): array
    {
        if (! isset($this->fixed[$key])) {
            return [$key];
        }
        $tops = [];
        foreach ($this->account->nodes as $other => $node) {
            if ($this->isTop((string) $other) && in_array($key, $this->account->keysTo((string) $other), true)) {
                $tops[] = (string) $other;
            }
        }

        return $tops;
    }
}
