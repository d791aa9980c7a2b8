<?php

declare(strict_types=1);

namespace Standins\Ads;

use Standins\BadRequest;
use Standins\Crowd\People;
use Standins\Faults;
use Standins\Store;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** The advertisers' API: sign-in by token, listings in pages, updates that refuse a stale version. */
final readonly class Api
{
    private const LARGEST_PAGE = 1000;

    private const MOST_CLICKS = 2000;

    private const MOST_FIGURES = 10_000;

    /** What an account switches is told with its own element. */
    private const NODES =
        'select n.*, (select settings from accounts a where a.platform = n.platform and a.id = '.
        'n.id) settings from nodes n where platform = ? and account = ? ';

    private const FACTS = [
        'term' => 'keyword.text',
        'match' => 'keyword.match',
        'device' => 'device',
        'net' => 'network',
        'placement' => 'placement',
        'surface' => 'surface',
        'publisher' => 'publisher.name',
        'publisherId' => 'publisher.id',
        'page' => 'page.url',
        'product' => 'product.id',
        'click' => 'click.id',
        'chance' => 'click.random',
    ];

    public function __construct(
        private Platform $platform,
        private Store $store,
        private Faults $faults,
        private int $port,
    ) {}

    public function handle(Request $request): Response
    {
        $path = $request->getPathInfo();
        if ($path === '/v1/token') {
            return $this->token($request);
        }
        $customer = $this->customer($request);
        if (
            preg_match('~^/v1/accounts/([\w-]+)/~', $path, $m) === 1
            && $this->store->rows('select 1 from accounts where platform = ? and id = ? and customer = ?', [
                $this->platform->host,
                $m[1],
                $customer,
            ]) === []
        ) {
            throw new BadRequest('there is no such account, or it is not yours', 404);
        }

        return match (true) {
            $path === '/v1/accounts' => $this->accounts($customer),
            preg_match('~^/v1/accounts/([\w-]+)/nodes$~', $path, $m) === 1 => $this->nodes($m[1], $request),
            preg_match('~^/v1/accounts/([\w-]+)/updates$~', $path, $m) === 1 => $this->updates($m[1], $request),
            preg_match('~^/v1/accounts/([\w-]+)/test-clicks$~', $path, $m) === 1 => $this->testClick(
                $m[1],
                $request,
            ),
            preg_match('~^/v1/accounts/([\w-]+)/clicks$~', $path, $m) === 1 => $this->clicks($m[1], $request),
            preg_match('~^/v1/accounts/([\w-]+)/figures$~', $path, $m) === 1 => $this->figures($m[1], $request),
            default => throw new BadRequest('There is no such call', 404),
        };
    }

    private function token(Request $request): Response
    {
        $body = self::body($request);
        $customer =
            ['saltmarsh-row' => 'velmar', 'saltmarsh-ninefold' => 'ninefold'][$body['client'] ?? ''] ?? null;
        if ($customer === null || ($body['secret'] ?? '') !== $this->platform->secret) {
            throw new BadRequest('client or secret is wrong', 401);
        }
        $token = bin2hex(random_bytes(16));
        $this->store->run('insert into tokens (token, platform, customer, until) values (?, ?, ?, ?)', [
            $token,
            $this->platform->host,
            $customer,
            time() + 900,
        ]);

        return new JsonResponse(['token' => $token, 'expiresIn' => 900]);
    }

    private function customer(Request $request): string
    {
        $token = substr((string) $request->headers->get('Authorization'), strlen('Bearer '));

        return $this->store->rows('select customer from tokens where token = ? and platform = ? and until > ?', [
            $token,
            $this->platform->host,
            time(),
        ])[0]['customer'] ?? throw new BadRequest('the token is missing or no longer good', 401);
    }

    private function accounts(string $customer): Response
    {
        return new JsonResponse([
            'items' => array_map(
                static fn (array $r): array => [
                    'id' => $r['id'],
                    'name' => $r['name'],
                    'version' => (int) $r['version'],
                    'nodes' => (int) $r['total'],
                ],
                $this->store->rows(
                    'select a.id, n.name, n.version,
                (select count(*) from nodes c where c.platform = a.platform and c.account = a.id)
                total
            from accounts a join nodes n on n.platform = a.platform and n.id = a.id
            where a.platform = ? and a.customer = ? order by a.id',
                    [$this->platform->host, $customer],
                ),
            ),
        ]);
    }

    private function nodes(string $account, Request $request): Response
    {
        if ($request->query->has('ids')) {
            $ids = array_slice(explode(',', $request->query->getString('ids')), 0, 200);
            $marks = implode(',', array_fill(0, count($ids), '?'));

            return new JsonResponse([
                'items' => array_map(
                    self::node(...),
                    $this->store->rows(self::NODES."and id in ({$marks})", [
                        $this->platform->host,
                        $account,
                        ...$ids,
                    ]),
                ),
                'next' => null,
            ]);
        }
        $limit = max(1, min($request->query->getInt('limit', 500), self::LARGEST_PAGE));
        $after = $request->query->getInt('after', -1);
        $rows = $this->store->rows(self::NODES.'and level = ? and position > ? order by position limit ?', [
            $this->platform->host,
            $account,
            $request->query->getString('level'),
            $after,
            $limit + 1,
        ]);
        $more = count($rows) > $limit;
        $rows = array_slice($rows, 0, $limit);
        if ($this->faults->take($this->platform->host, 'empty') !== null) {
            return new JsonResponse(['items' => [], 'next' => null]);
        }
        if ($this->faults->take($this->platform->host, 'short') !== null) {
            return new JsonResponse([
                'items' => array_map(self::node(...), array_slice($rows, 0, -1)),
                'next' => $more ? (int) end($rows)['position'] : null,
            ]);
        }

        return new JsonResponse([
            'items' => array_map(self::node(...), $rows),
            'next' => $more ? (int) end($rows)['position'] : null,
        ]);
    }

    private function updates(string $account, Request $request): Response
    {
        return new JsonResponse(
            (new Updates($this->platform, $this->store, $this->faults))->carryOut(
                $account,
                (string) $request->headers->get('Idempotency-Key'),
                self::body($request)['updates'] ?? null,
            ),
            200,
            [],
            true,
        );
    }

    /** A click like any other, asked for by the advertiser: the facts are named neutrally. */
    private function testClick(string $account, Request $request): Response
    {
        $body = self::body($request);
        $wanted = [];
        foreach (self::FACTS as $fact => $field) {
            if (is_string($body['context'][$field] ?? null)) {
                $wanted[$fact] = $body['context'][$field];
            }
        }
        $click = (new Clicks($this->platform, $this->store))->make(
            (string) ($body['ad'] ?? ''),
            $wanted,
            $account,
        );
        $context = [];
        foreach ($click['facts'] as $fact => $value) {
            $context[self::FACTS[$fact]] = $value;
        }

        return new JsonResponse(['id' => $click['id'], 'url' => $click['url'], 'context' => $context]);
    }

    private function clicks(string $account, Request $request): Response
    {
        $asked =
            $request->getMethod() === 'POST'
                ? self::body($request)['ids'] ?? []
                : explode(',', $request->query->getString('ids'));
        $ids = array_slice(array_values(array_filter((array) $asked, is_string(...))), 0, self::MOST_CLICKS);
        $marks = implode(',', array_fill(0, count($ids), '?'));

        return new JsonResponse([
            'items' => $ids === []
                    ? []
                    : $this->store->rows(
                        'select id, ad, keyword, placement, device, at from clicks where platform = ? '.
                            "and account = ? and id in ({$marks})",
                        [$this->platform->host, $account, ...$ids],
                    ),
        ]);
    }

    /** What is known by now of each ad and day; the last clicks of a day are counted up to two days later. */
    private function figures(string $account, Request $request): Response
    {
        People::goOn($this->store, $this->port);
        $limit = max(1, min($request->query->getInt('limit', self::LARGEST_PAGE), self::MOST_FIGURES));
        $after = max(0, $request->query->getInt('after'));
        $of = [
            $this->platform->host,
            $account,
            $request->query->getString('from'),
            $request->query->getString('to'),
        ];
        $rows = $this->store->rows(
            "select s.day, s.ad node, s.impressions, coalesce(c.n, 0) clicks, coalesce(c.cost, 0) cost, 'EUR' currency,
                coalesce(k.n, 0) conversions, coalesce(k.value, 0) value
            from shown s
            left join (
                select ad, substr(at, 1, 10) day, count(*) n, sum(cost) cost from clicks
                where platform = ?1 and account = ?2 and at >= ?3 and at < date(?4, '+1 day')
                    and at <= strftime('%Y-%m-%dT%H:%M:%fZ') and date(at, '+' || late || ' days') <= date()
                group by ad, day
            ) c on c.ad = s.ad and c.day = s.day
            left join (
                select ad, day, count(*) n, sum(value) value from claims
                where platform = ?1 and account = ?2 and at <= strftime('%Y-%m-%dT%H:%M:%fZ') group by ad, day
            ) k on k.ad = s.ad and k.day = s.day
            where s.platform = ?1 and s.account = ?2 and s.day between ?3 and ?4
            order by s.day, s.ad limit ?5 offset ?6",
            [...$of, $limit + 1, $after],
        );

        return new JsonResponse([
            'items' => array_slice($rows, 0, $limit),
            'next' => count($rows) > $limit ? $after + $limit : null,
        ]);
    }

    /**
     * @param array<string, mixed> $row
     * @return array<string, mixed>
     */
    private static function node(array $row): array
    {
        return [
            'id' => $row['id'],
            'parent' => $row['parent'],
            'level' => $row['level'],
            'name' => $row['name'],
            'type' => $row['type'],
            'version' => (int) $row['version'],
            'slots' => (object) json_decode($row['slots'], true),
            'custom' => (object) json_decode($row['custom'], true),
            'keywords' => json_decode($row['keywords'], true),
            'publishedName' => $row['published'],
            'facts' => (object) json_decode($row['facts'], true),
            ...$row['settings'] === null ? [] : ['settings' => (object) json_decode($row['settings'], true)],
            'standing' => $row['standing'] === 'review' && (int) $row['reviewed'] < time() ? 'live' : $row['standing'],
        ];
    }

    /** @return array<string, mixed> */
    private static function body(Request $request): array
    {
        $body = json_decode($request->getContent(), true);

        return is_array($body) ? $body : throw new BadRequest('a JSON object is wanted');
    }
}
