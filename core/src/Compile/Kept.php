<?php

declare(strict_types=1);

namespace Vestigon\Core\Compile;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Contexts;
use Vestigon\Core\Template\Distinct;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Stop;
use Vestigon\Core\Trace\Trace;
use Vestigon\Core\Url\Address;

/**
 * The plan's keys that stay as they arrive: in an account where ours do not take the place of theirs, all that arrive
 * already, from whatever place; in any account those that a hop adds, since nobody can take them out.
 */
final class Kept
{
    /** @var array<string, array<string, int>> node → key → how many of the ads below keep it */
    private array $below = [];

    /** @var list<Unmet>|null */
    private ?array $all = null;

    /** @var array<string, int> node → its ads */
    private array $ads = [];

    /**
     * @param array<string, list<string>> $byAd
     * @param bool $byChoice they could be replaced
     */
    private function __construct(private readonly array $byAd, private readonly bool $byChoice, Account $account)
    {
        foreach ($byAd as $ad => $keys) {
            foreach (array_slice($account->keysTo((string) $ad), 0, -1) as $node) {
                $this->ads[$node] = ($this->ads[$node] ?? 0) + 1;
                foreach ($keys as $key) {
                    $this->below[$node][$key] = ($this->below[$node][$key] ?? 0) + 1;
                }
            }
        }
    }

    public static function in(Account $account, Plan $plan, bool $keeps): self
    {
        $added = array_merge(...array_map(static fn (Hop $h): array => array_column($h->adds, 0), $account->hops));
        if (! $keeps && array_intersect($plan->keys(), $added) === []) {
            return new self([], false, $account);
        }
        $reader = new TemplateReader($account->dialect);
        $byAd = $alike = [];
        foreach ($account->adNodes() as $key => $ad) {
            $parent = $account->parents[$key] ?? '';
            $byAd[$key] = $alike[Distinct::of($parent, $ad->saidInAll())] ??= self::arriving(
                $account,
                $account->pathTo($key),
                $plan,
                $keeps,
                $reader,
            );
        }

        return new self($byAd, $keeps, $account);
    }

    /** Does any ad keep any? */
    public function any(): bool
    {
        return $this->below !== [];
    }

    /** @return list<string> plan keys that an ad keeps */
    public function by(string $ad): array
    {
        return $this->byAd[$ad] ?? [];
    }

    /**
     * The keys that a text above ads need not say, since they arrive without.
     *
     * @param bool $spares for the sake of any of the ads below; else where all of them keep the key
     * @return list<string>
     */
    public function above(string $node, bool $spares): array
    {
        $least = $spares ? 1 : $this->ads[$node] ?? 1;

        return array_map(
            strval(...),
            array_keys(array_filter($this->below[$node] ?? [], static fn (int $ads): bool => $ads >= $least)),
        );
    }

    /** @return list<Unmet> by ad and key */
    public function all(): array
    {
        return $this->all ??= $this->listed();
    }

    /** @return list<Unmet> */
    private function listed(): array
    {
        $all = [];
        foreach ($this->byChoice ? $this->byAd : [] as $ad => $keys) {
            foreach ($keys as $key) {
                $all[] = new Unmet((string) $ad, $key, 'is sent already');
            }
        }

        return $all;
    }

    /** @return list<string> plan keys in the texts that count on this path */
    public static function onPath(Path $path, Plan $plan, TemplateReader $reader): array
    {
        $inheritance = new Inheritance($path);
        $keys = [];
        foreach (SlotKind::cases() as $kind) {
            $text = $inheritance->effective($kind)?->text;
            if ($text !== null) {
                array_push(
                    $keys,
                    ...$reader
                        ->read($text)
                        ->query($kind === SlotKind::Suffix)
                        ->keys(),
                );
            }
        }

        return array_values(array_intersect($plan->keys(), $keys));
    }

    /** @return list<string> plan keys that arrive with some click of an ad; or that a hop adds */
    private static function arriving(
        Account $account,
        Path $ad,
        Plan $plan,
        bool $keeps,
        TemplateReader $reader,
    ): array {
        $route = Route::of($ad, $account->settings, $account->hops, $reader);
        $arriving = [];
        foreach (Contexts::all($route->fields(), $account->dialect, $ad->campaignType()) as $context) {
            $trace = $route->trace($context);
            $arriving += array_fill_keys(
                $keeps ? array_column($trace->arrival, 0) : self::added($trace, $account->hops),
                true,
            );
        }

        return array_values(array_filter($plan->keys(), static fn (string $key): bool => isset($arriving[$key])));
    }

    /**
     * @param list<Hop> $hops
     * @return list<string> keys that the hops on the way add, and that those behind them pass on
     */
    private static function added(Trace $trace, array $hops): array
    {
        $added = [];
        foreach ($trace->trail as [$url, $stop]) {
            foreach ($stop === Stop::Hop ? $hops : [] as $hop) {
                if ($hop->host === Address::host($url)) {
                    $added = [...$hop->appends ? $added : [], ...array_column($hop->adds, 0)];
                }
            }
        }

        return $added;
    }
}
