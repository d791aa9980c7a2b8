<?php

namespace App\Connectors;

use App\Models\Connection;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Crypt;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/** A platform's API for advertisers: sign-in by token, listings in pages, updates in batches. */
final readonly class HttpConnector implements Connector
{
    private const PAGE = 500;

    private const IDS_AT_ONCE = 200;

    private const CLICKS_AT_ONCE = 2000;

    private const FIGURES = 10_000;

    /** @param bool $clicks does it make clicks for tests? */
    public function __construct(private Line $line, private int $batch = 100, private bool $clicks = true) {}

    public function accounts(Connection $connection): array
    {
        return $this->items(
            $this->asked($connection, fn (string $token): array => $this->line->get('/v1/accounts', [], $token)),
            static fn (Cursor $c): RemoteAccount => new RemoteAccount(
                $c->at('id')->text(),
                $c->at('name')->string(),
                $c->at('nodes')->int(),
            ),
        );
    }

    public function nodes(Connection $connection, string $account, string $level): iterable
    {
        $after = -1;
        do {
            $page = $this->asked(
                $connection,
                fn (string $token): array => $this->line->get(
                    "/v1/accounts/{$account}/nodes",
                    ['level' => $level, 'limit' => self::PAGE, 'after' => $after],
                    $token,
                ),
            );
            yield from $this->items($page, Wire::node(...));
            $after = $page['next'] ?? null;
        } while (is_int($after));
    }

    public function read(Connection $connection, string $account, array $ids): array
    {
        $nodes = [];
        foreach (array_chunk($ids, self::IDS_AT_ONCE) as $some) {
            array_push(
                $nodes,
                ...$this->items(
                    $this->asked(
                        $connection,
                        fn (string $token): array => $this->line->get(
                            "/v1/accounts/{$account}/nodes",
                            ['ids' => implode(',', $some)],
                            $token,
                        ),
                    ),
                    Wire::node(...),
                ),
            );
        }

        return $nodes;
    }

    public function write(Connection $connection, string $account, string $key, array $updates): array
    {
        $body = ['updates' => array_map(Wire::update(...), $updates)];
        $answer = $this->asked(
            $connection,
            fn (string $token): array => $this->line->post(
                "/v1/accounts/{$account}/updates",
                $body,
                $token,
                ['Idempotency-Key' => $key],
                writes: true,
            ),
        );
        $answers = [];
        foreach (
            $this->items(
                ['items' => $answer['results'] ?? null],
                static fn (Cursor $c): array => [
                    $c->at('node')->text(),
                    new RemoteAnswer(
                        $c->at('state')->string(),
                        $c->has('message') ? $c->at('message')->string() : '',
                        $c->has('version') ? $c->at('version')->int() : null,
                    ),
                ],
            ) as [$node, $one]
        ) {
            $answers[$node] = $one; // in whatever order they come, and however often
        }
        $unknown = array_diff(
            array_map(strval(...), array_keys($answers)),
            array_map(static fn (RemoteUpdate $u): string => $u->node, $updates),
        );
        if ($unknown !== []) {
            throw PlatformTrouble::nonsense(
                $this->line->title,
                'a result for '.reset($unknown).', which was not asked for',
            );
        }

        return array_map(
            static fn (RemoteUpdate $u): RemoteAnswer => $answers[$u->node] ?? RemoteAnswer::missing(),
            $updates,
        );
    }

    public function writesNow(): bool
    {
        return true;
    }

    public function clicksNow(): bool
    {
        return $this->clicks;
    }

    /** Does it say that it makes clicks for tests? Where it says nothing, it does. */
    public function offersClicks(Connection $connection): bool
    {
        $answer = $this->asked(
            $connection,
            fn (string $token): array => $this->line->get('/v1/accounts', [], $token),
        );

        return ($answer['testClicks'] ?? true) !== false;
    }

    public function batchSize(): int
    {
        return $this->batch;
    }

    public function clicks(Connection $connection, string $account, array $clickIds): array
    {
        $clicks = [];
        foreach (array_chunk($clickIds, self::CLICKS_AT_ONCE) as $some) {
            $answer = $this->asked(
                $connection,
                fn (string $token): array => $this->line->post(
                    "/v1/accounts/{$account}/clicks",
                    ['ids' => $some],
                    $token,
                ),
            );
            foreach ($this->items($answer, KnownClick::read(...)) as $click) {
                $clicks[$click->id] = $click;
            }
        }

        return $clicks;
    }

    public function figures(Connection $connection, string $account, string $from, string $to): iterable
    {
        $after = 0;
        do {
            $page = $this->asked(
                $connection,
                fn (string $token): array => $this->line->get(
                    "/v1/accounts/{$account}/figures",
                    ['from' => $from, 'to' => $to, 'after' => $after, 'limit' => self::FIGURES],
                    $token,
                ),
            );
            yield from $this->items($page, Figures::read(...));
            $after = $page['next'] ?? null;
        } while (is_int($after));
    }

    public function click(Connection $connection, string $account, string $ad, array $context): RemoteClick
    {
        $answer = new Cursor(
            $this->asked(
                $connection,
                fn (string $token): array => $this->line->post(
                    "/v1/accounts/{$account}/test-clicks",
                    ['ad' => $ad, 'context' => $context === [] ? new \stdClass() : $context],
                    $token,
                ),
            ),
        );
        try {
            return new RemoteClick(
                $answer->at('id')->text(),
                $answer->at('url')->string(),
                $answer->at('context')->stringMap(),
            );
        } catch (UnusableInput $e) {
            throw PlatformTrouble::nonsense($this->line->title, $e->getMessage());
        }
    }

    /**
     * Asks with the token that there is; once more with a new one, where the platform has forgotten it before its time.
     *
     * @param \Closure(string): array<string, mixed> $ask
     * @return array<string, mixed>
     */
    private function asked(Connection $connection, \Closure $ask): array
    {
        try {
            return $ask($this->token($connection));
        } catch (PlatformTrouble $trouble) {
            if (! $trouble->isSignedOut || isset($connection->credentials['token'])) {
                throw $trouble;
            }
            Cache::forget(self::place($connection));

            return $ask($this->token($connection));
        }
    }

    private function token(Connection $connection): string
    {
        if (isset($connection->credentials['token'])) {
            return $connection->credentials['token'];
        }
        $sealed = Cache::remember(
            self::place($connection),
            600,
            function () use ($connection): string {
                $token = $this->line->post('/v1/token', $connection->credentials)['token'] ?? null;

                return Crypt::encryptString(
                    is_string($token) ? $token : throw PlatformTrouble::nonsense($this->line->title, 'no token'),
                );
            },
        );

        return Crypt::decryptString($sealed);
    }

    /** Where a token is kept: by the credentials that it was given for. */
    private static function place(Connection $connection): string
    {
        return "token {$connection->id} ".sha1((string) $connection->getRawOriginal('credentials'));
    }

    /**
     * @template T
     *
     * @param array<string, mixed> $answer
     * @param \Closure(Cursor): T $read
     * @return list<T>
     */
    private function items(array $answer, \Closure $read): array
    {
        try {
            return array_map($read, (new Cursor($answer))->at('items')->list());
        } catch (UnusableInput $e) {
            throw PlatformTrouble::nonsense($this->line->title, $e->getMessage());
        }
    }
}
