<?php

declare(strict_types=1);

namespace Vestigon\Core\Decode;

use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Proof\Contexts;
use Vestigon\Core\Template\Distinct;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Routes;
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

    private readonly Routes $routes;

    public function __construct(private readonly History $history)
    {
        $this->account = $history->account;
        $this->reader = new TemplateReader($this->account->dialect);
        $this->trail = Trail::through($this->account->hops);
        $this->routes = new Routes($this->account->settings, $this->account->hops, $this->reader);
        $known = $above = [];
        foreach ($this->account->adNodes() as $ad => $node) {
            $ad = (string) $ad;
            $parent = $this->account->parents[$ad] ?? null;
            if ($parent !== null && $history->isUnchanged($ad)) {
                // ads of one parent share what stands above them
                $stand = $above[$parent] ??= $this->above($this->account->pathTo($parent)->nodes);
                $kind = $known[$stand][$this->own($node)] ??= $this->kind($this->account->pathTo($ad));
                $kind->versions[] = new Version($history, $ad, null, null);

                continue;
            }
            foreach ($history->versions($ad) as $version) {
                $nodes = $version->path()->nodes;
                $own = $this->own($nodes[count($nodes) - 1]);
                $kind = $known[$this->above(array_slice($nodes, 0, -1))][$own] ??= $this->kind($version->path());
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
            $path = $version->path();
            $context = array_diff_key($read + $mold->rest(), $path->fields($path->dialect->namesFreeze));
            $trace = $this->history->isUnchanged($version->ad)
                ? $this->routes->trace($path, $context)
                : $this->route($path)->trace($context);
            if ($trace->landed === $url) {
                $fits[] = new Fit($version, $read, $trace);
            }
            if (count($fits) === self::MOST) {
                break;
            }
        }

        return $fits;
    }

    private function route(Path $path): Route
    {
        return Route::of($path, $this->account->settings, $this->account->hops, $this->reader);
    }

    private function kind(Path $path): Kind
    {
        $route = $this->route($path);
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

    /**
     * Of what stands above ads all that the shapes of their clicks come from.
     *
     * @param list<Node> $nodes
     */
    private function above(array $nodes): string
    {
        $path = $nodes === [] ? null : new Path($this->account->dialect, $nodes);
        $facts = $path?->fields($this->account->dialect->namesFreeze) ?? [];

        return Distinct::of(
            $path?->campaignType(),
            self::given($facts),
            ...array_map(static fn (Node $node): string => "{$node->level} {$node->saidInAll()}", $nodes),
        );
    }

    /** The same of an ad alone; asked of every ad. */
    private function own(Node $ad): string
    {
        $name = $this->account->dialect->namesFreeze ? $ad->publishedName ?? $ad->name : $ad->name;
        $given = ($ad->id === '' ? '' : 'i').($name === '' ? '' : 'n');

        return "{$given} {$ad->saidInAll()}".($ad->attributes === [] ? '' : "\0".self::given($ad->attributes));
    }

    /** @param array<string, string> $facts */
    private static function given(array $facts): string
    {
        $given = array_keys(array_filter($facts, static fn (string $v): bool => $v !== ''));
        sort($given);

        return Distinct::of(...array_map(strval(...), $given));
    }
}
