<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Proof\Contexts;
use Vestigon\Core\Template\Distinct;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Trail;

/**
 * Reads landing URLs back: which ads of an account can have made them, and what the click was.
 *
 * Ads with the same texts, today or once, are one kind; for each shape of its clicks a mold is laid over the URL. What
 * fits is made again by the engine: it counts only if it comes out the same, to the last character.
 */
final class Decoder
{
    /** Of a kind so many ads are tried one by one, where a URL can be read in several ways. */
    private const ONE_BY_ONE = 500;

    /** Of ads that the texts can't tell apart so many are told. */
    private const MOST = 25;

    private readonly TemplateReader $reader;

    private readonly Trail $trail;

    /** @var array<string, list<Kind>> by what stands before the query */
    private array $kinds = [];

    /** @var list<Kind> whose molds can't be looked up */
    private array $open = [];

    private readonly Account $account;

    public function __construct(History $history)
    {
        $this->account = $history->account;
        $this->reader = new TemplateReader($this->account->dialect);
        $this->trail = Trail::through($this->account->hops);
        $known = [];
        foreach ($this->account->adNodes() as $ad => $ignored) {
            foreach ($history->versions((string) $ad) as $version) {
                $kind = $known[self::texts($version->path)] ??= $this->kind($version->path);
                $kind->versions[] = $version;
            }
        }
    }

    /**
     * @param int|null $at when it arrived; null: nobody knows, of each ad the last time at which it fits is told
     * @return list<Fit> the last first; none: no ad of the account can have made it
     */
    public function fits(string $url, ?int $at = null): array
    {
        $kinds = [...$this->kinds[Mold::addressOf($url)] ?? [], ...$this->open];
        $fits = [];
        foreach ($kinds as $kind) {
            foreach ($kind->molds as $mold) {
                foreach ($mold->readings($url) as $read) {
                    $fits = [...$fits, ...$this->made($kind->having($read), $at, $read, $mold, $url)];
                }
            }
        }
        // where values could be told apart in several ways, what is known of each ad tells them
        foreach ($fits === [] ? $kinds : [] as $kind) {
            foreach (array_slice($kind->versions, 0, self::ONE_BY_ONE) as $version) {
                foreach ($kind->molds as $mold) {
                    foreach ($mold->readings($url, $version->facts()) as $read) {
                        $fits = [...$fits, ...$this->made([$version], $at, $read, $mold, $url)];
                    }
                }
            }
        }

        $until = static fn (Fit $f): int => $f->version->until ?? PHP_INT_MAX;
        usort($fits, static fn (Fit $a, Fit $b): int => $until($b) <=> $until($a));
        $last = [];
        foreach ($fits as $fit) {
            $last[$fit->version->ad] ??= $fit;
        }

        return array_slice(array_values($last), 0, self::MOST);
    }

    /**
     * @param list<Version> $versions
     * @param array<string, string> $read
     * @return list<Fit> those that make the URL
     */
    private function made(array $versions, ?int $at, array $read, Mold $mold, string $url): array
    {
        $fits = [];
        foreach ($versions as $version) {
            if ($at !== null && ! $version->stoodAt($at)) {
                continue;
            }
            $route = Route::of($version->path, $this->account->settings, $this->account->hops, $this->reader);
            $trace = $route->trace(array_diff_key($read + $mold->rest(), $version->facts()));
            if ($trace->landed === $url) {
                $fits[] = new Fit($version, $read, $trace);
            }
            if (count($fits) === self::MOST) {
                break;
            }
        }

        return $fits;
    }

    private function kind(Path $path): Kind
    {
        $route = Route::of($path, $this->account->settings, $this->account->hops, $this->reader);
        $molds = [];
        foreach (
            Contexts::all($route->fields(), $this->account->dialect, $path->campaignType()) as $context
        ) {
            $shape = $route->shape($context);
            $molds[spl_object_id($shape)] ??= [$shape, Mold::of($shape, $this->trail, $context)];
        }
        $kind = new Kind(array_values(array_filter(array_column($molds, 1))));
        foreach ($kind->molds as $mold) {
            if ($mold->isOpen()) {
                $this->open[] = $kind;
                break;
            }
            $this->kinds[$mold->address] ??= [];
            if (! in_array($kind, $this->kinds[$mold->address], true)) {
                $this->kinds[$mold->address][] = $kind;
            }
        }

        return $kind;
    }

    /** All that the shapes of an ad's clicks come from. */
    private static function texts(Path $path): string
    {
        $said = array_map(static fn ($node): string => "{$node->level} {$node->saidInAll()}", $path->nodes);
        $facts = $path->fields($path->dialect->namesFreeze);
        $empty = array_keys(array_filter($facts, static fn (string $v): bool => $v === ''));

        return Distinct::of($path->campaignType(), implode(' ', $empty), ...$said);
    }
}
