<?php

declare(strict_types=1);

namespace Standins\Sites;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** The sites of the demo's clients. Their pages report to Tallyroom what a visitor arrives with. */
final readonly class Landing
{
    private const SITES = [
        'velmar' => [
            'Velmar Ferries',
            'Welcome aboard',
            'Boats to the islands, every day of the year but two.',
            '#12465c',
        ],
        'ninefold' => [
            'Ninefold Museum of Clocks',
            'Come in, it is nearly noon',
            'Nine floors, four hundred clocks, one of them right.',
            '#5a2d3f',
        ],
    ];

    public function __construct(private string $site, private int $port) {}

    public function handle(Request $request): Response
    {
        [$name, $welcome, $line, $colour] = self::SITES[$this->site];
        $page = htmlspecialchars(
            ucfirst(trim(str_replace(['/', '-'], ' ', $request->getPathInfo()))) ?: $welcome,
            ENT_QUOTES,
        );
        $collector = "//tallyroom.localhost:{$this->port}/collect";
        $html = <<<HTML
        <!doctype html><html lang="en"><meta charset="utf-8"><title>{$page} · {$name}</title>
        <style>
          body{font:17px/1.6 system-ui,sans-serif;margin:0;color:#12303d}
          header{background:{$colour};color:#fff;padding:1rem 2rem}
          main{max-width:40rem;margin:2rem auto;padding:0 1rem}
        </style>
        <header>{$name}</header><main><h1>{$page}</h1><p>{$line}</p></main>
        <script>
          navigator.sendBeacon("{$collector}", JSON.stringify({url: location.href, referrer: document.referrer}));
        </script></html>
        HTML;

        return new Response($html);
    }
}
