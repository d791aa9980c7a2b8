<?php

declare(strict_types=1);

namespace Standins\Ads;

use Standins\BadRequest;
use Standins\Faults;
use Standins\Platforms\Oldgate;
use Standins\Store;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** A platform's site: an API for advertisers, and a page with its live ads. */
final readonly class Site
{
    public function __construct(
        private Platform $platform,
        private Store $store,
        private Faults $faults,
        private int $port,
    ) {}

    public function handle(Request $request): Response
    {
        $path = $request->getPathInfo();

        return match (true) {
            str_starts_with($path, '/v1/') => (new Api(
                $this->platform,
                $this->store,
                $this->faults,
                $this->port,
            ))->handle($request),
            $path === '/' || $path === '/ads' => (new LivePage($this->platform, $this->store))->page($request),
            $path === '/desk' && $this->platform instanceof Oldgate => (new Desk(
                $this->platform,
                $this->store,
            ))->handle($request),
            $path === '/click' => (new LivePage($this->platform, $this->store))->click($request),
            default => throw new BadRequest('There is nothing here. Live ads are at /ads', 404),
        };
    }
}
