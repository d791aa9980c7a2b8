<?php

declare(strict_types=1);

namespace Standins\Sites;

use Standins\BadRequest;
use Standins\Store;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** Tallyroom, an analytics collector: pages report arrivals to /collect, customers read them at /v1/arrivals. */
final readonly class Tallyroom
{
    public function __construct(private Store $store) {}

    public function handle(Request $request): Response
    {
        if ($request->getPathInfo() === '/collect') {
            $body = json_decode($request->getContent(), true);
            if (! is_array($body) || ! is_string($body['url'] ?? null)) {
                throw new BadRequest('{url, referrer} is wanted');
            }
            $this->store->run('insert into arrivals (at, url, referrer) values (?, ?, ?)', [(new \DateTimeImmutable)->format('Y-m-d\TH:i:s.vP'), $body['url'], (string) ($body['referrer'] ?? '')]);

            return new Response('', 204, ['Access-Control-Allow-Origin' => '*']);
        }
        if ($request->getPathInfo() !== '/v1/arrivals' || $request->headers->get('Authorization') !== 'Bearer tally-4410') {
            throw new BadRequest('/v1/arrivals with the customer\'s token is wanted', 401);
        }
        $rows = $this->store->rows('select * from arrivals where id > ? and url like ? order by id limit 500', [$request->query->getInt('after'), 'http://'.$request->query->getString('site').'.localhost%']);

        return new JsonResponse(['items' => $rows]);
    }
}
