<?php

declare(strict_types=1);

namespace Standins\Sites;

use Standins\BadRequest;
use Standins\Store;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Hopgate, a click tracker: GET /r?to=DESTINATION&… redirects there, takes all other parameters along and adds its own
 * click number. GET /counts?site=… says how many it has sent on to a site, by day.
 */
final readonly class Hopgate
{
    public function __construct(private Store $store) {}

    public function handle(Request $request): Response
    {
        if ($request->getPathInfo() === '/counts') {
            if ($request->headers->get('Authorization') !== 'Bearer gate-2207') {
                throw new BadRequest('the customer\'s token is wanted', 401);
            }

            return new JsonResponse([
                'items' => $this->store->rows(
                    'select day, n clicks from passed where site = ? and day < date() order by day',
                    [$request->query->getString('site')],
                ),
            ]);
        }
        $to = self::onward(
            (string) $request->server->get('QUERY_STRING'),
            'H'.$this->store->rows('select count(*) n from clicks')[0]['n'],
        );
        if ($request->getPathInfo() !== '/r' || $to === null) {
            throw new BadRequest('/r?to= with the address of a page of this small world is wanted', 422);
        }

        return new RedirectResponse($to);
    }

    /**
     * Where it sends a click on to.
     *
     * @param string $number its own of the click
     * @return string|null null: to no page of this small world
     */
    public static function onward(string $query, string $number): ?string
    {
        $pairs = array_map(
            static fn (string $p): array => array_pad(array_map(urldecode(...), explode('=', $p, 2)), 2, ''),
            array_filter(explode('&', $query), strlen(...)),
        );
        $to = null;
        $others = [];
        foreach ($pairs as [$key, $value]) {
            if ($key === 'to') {
                $to ??= $value;
            } else {
                $others[] = urlencode($key).'='.urlencode($value);
            }
        }
        if ($to === null || preg_match('~^https?://[a-z]+\.localhost(:\d+)?(/|$|\?|#)~', $to) !== 1) {
            return null;
        }
        $others[] = "hgcid={$number}";
        [$front, $fragment] = array_pad(explode('#', $to, 2), 2, null);

        return $front.
            (str_contains($front, '?') ? '&' : '?').
            implode('&', $others).
            ($fragment === null ? '' : "#{$fragment}");
    }
}
