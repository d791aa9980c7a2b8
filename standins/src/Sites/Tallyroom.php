<?php

declare(strict_types=1);

namespace Standins\Sites;

use Standins\BadRequest;
use Standins\Crowd\People;
use Standins\Store;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Tallyroom, an analytics collector: pages report arrivals to /collect, customers read them at /v1/arrivals, and orders
 * that were taken back at /v1/refunds, and views of people who did not consent at /v1/withheld: how many on a day.
 */
final readonly class Tallyroom
{
    /** Beacons a minute that one visitor's address may send for one site, and the bytes of each. */
    private const MOST_BEACONS = 240;

    private const MOST_BYTES = 64 * 1024;

    private const LARGEST_PAGE = 5000;

    public function __construct(private Store $store, private int $port) {}

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
            $this->store->run('insert into arrivals (at, url, referrer, site) values (?, ?, ?, ?)', [
                (new \DateTimeImmutable())->format('Y-m-d\TH:i:s.vP'),
                $body['url'],
                (string) ($body['referrer'] ?? ''),
                preg_match('~^http://([a-z]+)\.localhost~', $body['url'], $at) === 1 ? $at[1] : '',
            ]);

            return new Response('', 204, ['Access-Control-Allow-Origin' => '*']);
        }
        if ($request->headers->get('Authorization') !== 'Bearer tally-4410') {
            throw new BadRequest('the customer\'s token is wanted', 401);
        }
        People::goOn($this->store, $this->port);
        $after = $request->query->getInt('after');
        $site = $request->query->getString('site');
        $limit = max(1, min($request->query->getInt('limit', 500), self::LARGEST_PAGE));

        return new JsonResponse([
            'items' => match ($request->getPathInfo()) {
                '/v1/arrivals' => array_map(
                    self::arrival(...),
                    $this->store->rows('select * from arrivals where id > ? and site = ? order by id limit ?', [
                        $after,
                        $site,
                        $limit,
                    ]),
                ),
                '/v1/refunds' => $this->store->rows(
                    "select id, order_id \"order\", at, value from refunds
                    where id > ? and site = ? and at <= strftime('%Y-%m-%dT%H:%M:%fZ') order by id limit ?",
                    [$after, $site, $limit],
                ),
                '/v1/withheld' => $this->store->rows(
                    'select day, n from withheld where site = ? and day < date() order by day',
                    [$site],
                ),
                default => throw new BadRequest('/v1/arrivals, /v1/refunds or /v1/withheld is wanted', 404),
            },
        ]);
    }

    /**
     * @param array<string, mixed> $row
     * @return array<string, mixed>
     */
    private static function arrival(array $row): array
    {
        return [
            'id' => $row['id'],
            'at' => $row['at'],
            'kind' => 'view',
            'url' => $row['url'],
            'referrer' => $row['referrer'],
            ...array_filter(['visitor' => $row['visitor'], 'device' => $row['device']]),
            ...$row['detail'] === null ? [] : json_decode((string) $row['detail'], true),
        ];
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
