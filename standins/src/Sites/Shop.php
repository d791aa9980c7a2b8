<?php

declare(strict_types=1);

namespace Standins\Sites;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** The shop of the ferries: GET /list.xml is its catalogue, a ticket an item, which changes once a day. */
final readonly class Shop
{
    public const ITEMS = 5000;

    private const ISLANDS = ['Skerrow', 'Orrin', 'Fenholm', 'Little Hask', 'Vardey', 'Sull', 'Marrow', 'Eastness'];

    private const KINDS = [
        ['foot', 'Foot passenger', 1900],
        ['bicycle', 'With a bicycle', 2400],
        ['car', 'Car and driver', 4900],
        ['van', 'Van up to 7 m', 8900],
        ['cabin', 'Cabin for two', 7200],
    ];

    public function __construct(private int $port) {}

    public function handle(Request $request): Response
    {
        $tag = '"'.gmdate('Ymd').'"';
        if ($request->headers->get('If-None-Match') === $tag) {
            return new Response('', 304, ['ETag' => $tag]);
        }

        return new Response($this->list(), 200, ['Content-Type' => 'application/xml; charset=utf-8', 'ETag' => $tag]);
    }

    private function list(): string
    {
        $root = "http://velmar.localhost:{$this->port}";
        $list = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<rss version=\"2.0\"><channel>\n".
            "<title>Velmar Ferries</title>\n";
        for ($i = 0; $i < self::ITEMS; $i++) {
            [$kind, $title, $price] = self::KINDS[$i % 5];
            $island = self::ISLANDS[intdiv($i, 5) % 8];
            $day = gmdate('Y-m-d', 1_793_491_200 + intdiv($i, 40) * 86_400);
            $page = "{$root}/islands/".strtolower(str_replace(' ', '-', $island));
            $link = $page.($i % 7 === 0 ? "?day={$day}&amp;ref=list" : "?day={$day}");
            $list .= "<item><id>V{$i}</id><title>{$title} to {$island}, {$day}</title><kind>{$kind}</kind>".
                "<island>{$island}</island><price>".number_format($price * (1 + $i % 3) / 100, 2).' EUR</price>'.
                ($i % 211 === 3 ? '' : "<link>{$link}</link>")."<ad_link>{$link}</ad_link></item>\n";
        }

        return "{$list}</channel></rss>\n";
    }
}
