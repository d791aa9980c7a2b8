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
 * Ads with the same texts are one kind; for each shape of its clicks a mold is laid over the URL. What fits is made
 * again by the engine: it counts only if it comes out the same, to the last character.
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

    /** @var array<string, Route> by ad, those asked for last */
    private array $routes = [];

    public function __construct(private readonly Account $account)
    {
        $this->reader = new TemplateReader($account->dialect);
        $this->trail = Trail::through($account->hops);
        $known = [];
        foreach ($account->ads() as $ad => $path) {
            $kind = $known[self::texts($path)] ??= $this->kind($path);
            $kind->ads[] = (string) $ad;
        }
    }

    /** @return list<Fit> none: no ad of the account can have made it, as its texts are now */
    public function fits(string $url): array
    {
        $kinds = [...$this->kinds[Mold::addressOf($url)] ?? [], ...$this->open];
        $fits = [];
        foreach ($kinds as $kind) {
            foreach ($kind->molds as $mold) {
                foreach ($mold->readings($url) as $read) {
                    $fits += $this->made($kind->having($read, $this->account), $read, $mold, $url);
                }
            }
        }
        // where values could be told apart in several ways, what is known of each ad tells them
        foreach ($fits === [] ? $kinds : [] as $kind) {
            foreach (array_slice($kind->ads, 0, self::ONE_BY_ONE) as $ad) {
                foreach ($kind->molds as $mold) {
                    foreach ($mold->readings($url, $this->facts($ad)) as $read) {
                        $fits += $this->made([$ad], $read, $mold, $url);
                    }
                }
            }
        }

        return array_slice(array_values($fits), 0, self::MOST);
    }

    /**
     * @param list<string> $ads
     * @param array<string, string> $read
     * @return array<string, Fit> by ad: those that make the URL
     */
    private function made(array $ads, array $read, Mold $mold, string $url): array
    {
        $fits = [];
        foreach (array_slice($ads, 0, self::MOST) as $ad) {
            $facts = $this->facts($ad);
            $trace = $this->route($ad)->trace(array_diff_key($read + $mold->rest(), $facts));
            if ($trace->landed === $url) {
                $fits[$ad] = new Fit($ad, $read, $trace);
            }
        }

        return $fits;
    }

    /** @return array<string, string> what the platform knows of an ad, by field */
    private function facts(string $ad): array
    {
        return $this->account->pathTo($ad)->fields($this->account->dialect->namesFreeze);
    }

    private function route(string $ad): Route
    {
        $this->routes = count($this->routes) > 500 ? [] : $this->routes;

        return $this->routes[$ad] ??= Route::of(
            $this->account->pathTo($ad),
            $this->account->settings,
            $this->account->hops,
            $this->reader,
        );
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
