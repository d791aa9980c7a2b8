<?php

declare(strict_types=1);

namespace Standins\Sites;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** The site of Velmar Ferries. Its pages report to Tallyroom what a visitor arrives with. */
final readonly class Velmar
{
    public function __construct(private int $port) {}

    public function handle(Request $request): Response
    {
        $page = htmlspecialchars(ucfirst(trim(str_replace(['/', '-'], ' ', $request->getPathInfo()))) ?: 'Welcome aboard', ENT_QUOTES);
        $collector = "//tallyroom.localhost:{$this->port}/collect";
        $html = <<<HTML
            <!doctype html><html lang="en"><meta charset="utf-8"><title>{$page} · Velmar Ferries</title>
            <style>body{font:17px/1.6 system-ui,sans-serif;margin:0;color:#12303d}header{background:#12465c;color:#fff;padding:1rem 2rem}main{max-width:40rem;margin:2rem auto;padding:0 1rem}</style>
            <header>Velmar Ferries</header><main><h1>{$page}</h1><p>Boats to the islands, every day of the year but two.</p></main>
            <script>navigator.sendBeacon("{$collector}", JSON.stringify({url: location.href, referrer: document.referrer}))</script></html>
            HTML;

        return new Response($html);
    }
}
