<?php

declare(strict_types=1);

namespace Standins;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** Trouble on demand: each kind is told beforehand how often it is to happen. */
final readonly class Faults
{
    public const KINDS = [
        'down',
        'busy',
        'slow',
        'nonsense',
        'moved',
        'half',
        'twice',
        'shuffled',
        'forget',
        'review',
        'reject',
        'empty',
        'short',
    ];

    public function __construct(private Store $store) {}

    /** Trouble that strikes before a site even looks at the request. */
    public function before(string $site, Request $request): ?Response
    {
        if (! str_starts_with($request->getPathInfo(), '/v1')) {
            return null;
        }
        if (($ms = $this->take($site, 'slow')) !== null) {
            usleep((int) $ms * 1000);
        }

        $down = $this->take($site, 'down');
        $busy = $down === null ? $this->take($site, 'busy') : null;

        return match (true) {
            $down !== null => new Response('Service unavailable', $down === '' ? 503 : (int) $down, [
                'Content-Type' => 'text/plain',
            ]),
            $busy !== null => new Response('Too many requests', 429, [
                'Content-Type' => 'text/plain',
                'Retry-After' => $busy,
            ]),
            $this->take($site, 'nonsense') !== null => new Response('<html><body>It works!</body></html>'),
            default => null,
        };
    }

    /** Uses up one of the faults of a kind; gives its argument, null if none is left. */
    public function take(string $site, string $kind): ?string
    {
        $fault =
            $this->store->rows(
                'select id, argument from faults where site = ? and kind = ? and remaining > 0 order by id limit 1',
                [$site, $kind],
            )[0] ?? null;
        if (
            $fault === null
            || $this->store->run('update faults set remaining = remaining - 1 where id = ? and remaining > 0', [
                $fault['id'],
            ]) === 0
        ) {
            return null;
        }

        return (string) $fault['argument'];
    }
}
