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
    /** Beacons a minute that one visitor's address may send for one site, and the bytes of each. */
    private const MOST_BEACONS = 240;

    private const MOST_BYTES = 64 * 1024;

    public function __construct(private Store $store) {}

    public function handle(Request $request): Response
    {
        if ($request->getPathInfo() === '/collect') {
            if (strlen($request->getContent()) > self::MOST_BYTES) {
                throw new BadRequest('a beacon has at most '.self::MOST_BYTES / 1024 .' KB', 413);
            }
            $body = json_decode($request->getContent(), true);
            if (! is_array($body) || ! is_string($body['url'] ?? null)) {
                throw new BadRequest('{url, referrer} is wanted');
            }
            if ($this->isBusy((string) $request->getClientIp(), (string) parse_url($body['url'], PHP_URL_HOST))) {
                return new Response('', 429, ['Retry-After' => '60', 'Access-Control-Allow-Origin' => '*']);
            }
            $this->store->run('insert into arrivals (at, url, referrer) values (?, ?, ?)', [
                (new \DateTimeImmutable())->format('Y-m-d\TH:i:s.vP'),
                $body['url'],
                (string) ($body['referrer'] ?? ''),
            ]);

            return new Response('', 204, ['Access-Control-Allow-Origin' => '*']);
        }
        if (
            $request->getPathInfo() !== '/v1/arrivals'
            || $request->headers->get('Authorization') !== 'Bearer tally-4410'
        ) {
            throw new BadRequest('/v1/arrivals with the customer\'s token is wanted', 401);
        }
        $rows = $this->store->rows('select * from arrivals where id > ? and url like ? order by id limit 500', [
            $request->query->getInt('after'),
            'http://'.$request->query->getString('site').'.localhost%',
        ]);

        return new JsonResponse(['items' => $rows]);
    }

    /** Counts a beacon; the address itself is not kept. */
    private function isBusy(string $address, string $site): bool
    {
        $key = hash('sha256', "{$address} {$site} ".intdiv(time(), 60));
        $this->store->run(
            'insert into beacons (key, minute, n) values (?, ?, 1) on conflict (key) do update set n = n + 1',
            [$key, intdiv(time(), 60)],
        );
        $this->store->run('delete from beacons where minute < ?', [intdiv(time(), 60)]);

        return $this->store->rows('select n from beacons where key = ?', [$key])[0]['n'] > self::MOST_BEACONS;
    }
}
