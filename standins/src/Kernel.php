<?php

declare(strict_types=1);

namespace Standins;

use Standins\Ads\Site;
use Standins\Platforms\All;
use Standins\Sites\Awkward;
use Standins\Sites\Hopgate;
use Standins\Sites\Landing;
use Standins\Sites\Mailbox;
use Standins\Sites\Shop;
use Standins\Sites\Tallyroom;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * The outside world in small: ad platforms, a click tracker, landing sites and an analytics collector.
 *
 * A program of its own: it knows nothing of the application and shares no code with it. The host's first label picks
 * the site.
 */
final readonly class Kernel
{
    public function __construct(private string $database, private int $port) {}

    public function handle(Request $request): Response
    {
        try {
            $store = Store::open($this->database, $this->port);
            $site = strtok($request->getHost(), '.') ?: '';
            if ($site === 'control') {
                return (new Control($store, $this->port))->handle($request);
            }
            $faults = new Faults($store);

            return $faults->before($site, $request) ??
                match ($site) {
                    'hopgate' => (new Hopgate($store))->handle($request),
                    'tallyroom' => (new Tallyroom($store, $this->port))->handle($request),
                    'awkward' => (new Awkward())->handle($request),
                    'mailbox' => (new Mailbox($store))->handle($request),
                    'velmar', 'ninefold' => $request->getPathInfo() === '/list.xml'
                        ? (new Shop($this->port))->handle($request)
                        : (new Landing($site, $this->port))->handle($request),
                    default => $this->platform($site, $store, $faults, $request) ??
                        new Response(
                            "There is no stand-in called \"{$site}\". Try northquay.localhost:{$this->port}/ads\n",
                            404,
                            ['Content-Type' => 'text/plain'],
                        ),
                };
        } catch (BadRequest $e) {
            return new JsonResponse(['error' => $e->getMessage()], $e->getCode());
        }
    }

    private function platform(string $host, Store $store, Faults $faults, Request $request): ?Response
    {
        $platform = All::at($host);

        return $platform === null ? null : (new Site($platform, $store, $faults, $this->port))->handle($request);
    }
}
