<?php

declare(strict_types=1);

namespace Standins;

use Standins\Crowd\People;
use Standins\Demo\Fleet;
use Standins\Sites\Tidepool;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Lets tests and the curious order trouble: POST /faults {site, kind, times, argument}; a large account: POST /grow
 * {ads, fleet}; people, who have been about for so many days: POST /people {days, seed, goesOn}, and what became of
 * their clicks: POST /fates; a shop's list is listed, and people click on it: POST /listings {list, clicks, seed}; what
 * an advertiser does at the platform's own desk: POST /edit {site, id, set | remove}; and the first day again: POST
 * /reset.
 */
final readonly class Control
{
    public function __construct(private Store $store, private int $port) {}

    public function handle(Request $request): Response
    {
        $body = $request->getContent() === '' ? [] : json_decode($request->getContent(), true);
        if ($request->getMethod() !== 'POST' || ! is_array($body)) {
            throw new BadRequest(
                'POST /faults with {site, kind, times, argument}, POST /grow with {ads, fleet}, POST /people '.
                    'with {days, seed, goesOn}, POST /listings with {list, clicks, seed}, POST /edit '.
                    'with {site, id, set | remove}, or POST /reset',
            );
        }
        if ($request->getPathInfo() === '/reset') {
            $this->store->pdo->exec('begin immediate');
            $this->store->reset($this->port);
            $this->store->pdo->exec('commit');

            return new JsonResponse(['reset' => true]);
        }
        if ($request->getPathInfo() === '/grow') {
            $this->store->pdo->exec('begin immediate');
            Fleet::fill($this->store, $this->port, (int) ($body['ads'] ?? 0), (int) ($body['fleet'] ?? 0));
            $this->store->pdo->exec('commit');

            return new JsonResponse(['grown' => $body['ads'] ?? 0]);
        }
        if ($request->getPathInfo() === '/people') {
            $this->store->pdo->exec('begin immediate');
            People::begin(
                $this->store,
                $this->port,
                max(0, min(400, (int) ($body['days'] ?? 0))),
                (int) ($body['seed'] ?? 1),
                (bool) ($body['goesOn'] ?? false),
            );
            $this->store->pdo->exec('commit');

            return new JsonResponse(['arrived' => $this->store->rows('select count(*) n from arrivals')[0]['n']]);
        }
        if ($request->getPathInfo() === '/listings') {
            $this->store->pdo->exec('begin immediate');
            $arrived = (new Tidepool($this->store))->list(
                (string) ($body['list'] ?? ''),
                max(0, min(10_000, (int) ($body['clicks'] ?? 0))),
                (int) ($body['seed'] ?? 1),
            );
            $this->store->pdo->exec('commit');

            return new JsonResponse(['arrived' => $arrived]);
        }
        if ($request->getPathInfo() === '/fates') {
            return new JsonResponse([
                'items' => $this->store->rows(
                    "select platform, account, fate, url like 'http://hopgate.%' tracked, count(*) n from clicks
                    where cost > 0 and at <= strftime('%Y-%m-%dT%H:%M:%fZ')
                        and date(at, '+' || late || ' days') <= date() group by 1, 2, 3, 4",
                ),
            ]);
        }
        if ($request->getPathInfo() === '/edit') {
            return new JsonResponse([
                'edited' => $this->edit(
                    (string) ($body['site'] ?? ''),
                    (string) ($body['id'] ?? ''),
                    (array) ($body['set'] ?? []),
                    (bool) ($body['remove'] ?? false),
                ),
            ]);
        }
        if (! in_array($body['kind'] ?? null, Faults::KINDS, true)) {
            throw new BadRequest('kind is one of '.implode(', ', Faults::KINDS));
        }
        $this->store->run('insert into faults (site, kind, argument, remaining) values (?, ?, ?, ?)', [
            $body['site'] ?? '',
            $body['kind'],
            (string) ($body['argument'] ?? ''),
            (int) ($body['times'] ?? 1),
        ]);

        return new JsonResponse(['ordered' => $body['kind']]);
    }

    /**
     * @param array<string, mixed> $set columns of the element
     * @return int how many elements it was done to
     */
    private function edit(string $site, string $id, array $set, bool $remove): int
    {
        if ($remove) {
            return $this->store->run('delete from nodes where platform = ? and id = ?', [$site, $id]);
        }
        if (isset($set['settings'])) {
            $this->store->run('update accounts set settings = ? where platform = ? and id = ?', [
                json_encode((object) $set['settings'], JSON_THROW_ON_ERROR),
                $site,
                $id,
            ]);
            $set += ['standing' => 'live'];
        }
        $set = array_intersect_key(
            $set,
            array_flip(['id', 'parent', 'name', 'type', 'slots', 'custom', 'standing']),
        );
        $values = array_map(
            static fn (mixed $v): mixed => is_array($v) ? json_encode((object) $v, JSON_THROW_ON_ERROR) : $v,
            $set,
        );

        return $set === []
            ? 0
            : $this->store->run(
                'update nodes set version = version + 1, '.
                    implode(', ', array_map(static fn (string $c): string => "{$c} = ?", array_keys($set))).
                    ' where platform = ? and id = ?',
                [...array_values($values), $site, $id],
            );
    }
}
