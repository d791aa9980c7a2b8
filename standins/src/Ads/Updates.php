<?php

declare(strict_types=1);

namespace Standins\Ads;

use Standins\BadRequest;
use Standins\Faults;
use Standins\Store;

/**
 * Carries out batches of updates: each key once, each update by itself.
 *
 * What changes where an ad leads is looked at again by the platform's people: the ad is under review for a while.
 */
final readonly class Updates
{
    private const LARGEST_BATCH = 200;

    private const REVIEW_SECONDS = 90;

    private const LONGEST_NAME = 200;

    public function __construct(private Platform $platform, private Store $store, private Faults $faults) {}

    /**
     * @param mixed $updates of the request
     * @return string the answer's JSON
     */
    public function carryOut(string $account, string $key, mixed $updates): string
    {
        if ($key === '' || ! is_array($updates) || count($updates) > self::LARGEST_BATCH) {
            throw new BadRequest(
                'an Idempotency-Key and a list of at most '.self::LARGEST_BATCH.' updates are wanted',
            );
        }
        $this->store->pdo->exec('begin immediate');
        try {
            $done =
                $this->store->rows('select answer from done where key = ?', [
                    "{$this->platform->host} {$key}",
                ])[0]['answer'] ?? null;
            if ($done === null) {
                $done = json_encode(
                    ['results' => $this->results($account, array_values($updates))],
                    JSON_THROW_ON_ERROR,
                );
                $this->store->run('insert into done (key, answer) values (?, ?)', [
                    "{$this->platform->host} {$key}",
                    $done,
                ]);
            }
            $this->store->pdo->exec('commit');
        } catch (\Throwable $e) {
            $this->store->pdo->exec('rollback');
            throw $e;
        }

        return $done;
    }

    /**
     * @param list<array<string, mixed>> $updates
     * @return list<array<string, mixed>>
     */
    private function results(string $account, array $updates): array
    {
        $site = $this->platform->host;
        if ($this->faults->take($site, 'moved') !== null) {
            $this->store->run(
                "update nodes set version = version + 1, slots = json_set(slots, '$.suffix', 'moved=1') where "
                    .'platform = ? and id = ?',
                [$site, $updates[0]['node'] ?? ''],
            );
        }
        if ($this->faults->take($site, 'half') !== null) {
            $updates = array_slice($updates, 0, intdiv(count($updates), 2));
        }
        $forgets = $this->faults->take($site, 'forget') !== null;
        $standing =
            $this->faults->take($site, 'reject') !== null
                ? 'rejected'
                : ($this->faults->take($site, 'review') !== null
                    ? 'review'
                    : null);
        $results = array_map(
            fn (array $u, int $i): array => $this->update($account, $u, $forgets && $i === 0, $standing),
            $updates,
            array_keys($updates),
        );
        if ($this->faults->take($site, 'twice') !== null) {
            $results = array_merge($results, $results);
        }
        if ($this->faults->take($site, 'shuffled') !== null) {
            shuffle($results);
        }

        return $results;
    }

    /**
     * @param array<string, mixed> $row of the account
     * @param \Closure(string, string): array<string, mixed> $refuse
     * @return array<string, mixed>
     */
    private function switched(array $row, string $name, mixed $value, bool $forgets, \Closure $refuse): array
    {
        $problem =
            is_bool($value) || is_string($value) || $value === null
                ? $this->platform->switchProblem($row['level'], $name, $value)
                : "{$name} can't be switched to that";
        if ($problem !== null) {
            return $refuse('refused', $problem);
        }
        if (! $forgets) {
            $settings = json_decode(
                $this->store->rows('select settings from accounts where platform = ? and id = ?', [
                    $this->platform->host,
                    $row['id'],
                ])[0]['settings'],
                true,
            );
            unset($settings[$name]);
            $settings += $value === null ? [] : [$name => $value];
            $this->store->run('update accounts set settings = ? where platform = ? and id = ?', [
                json_encode((object) $settings),
                $this->platform->host,
                $row['id'],
            ]);
            $this->store->run('update nodes set version = version + 1 where platform = ? and id = ?', [
                $this->platform->host,
                $row['id'],
            ]);
        }

        return ['node' => $row['id'], 'state' => 'done', 'message' => '', 'version' => (int) $row['version'] + 1];
    }

    /**
     * What was published under a name keeps it besides.
     *
     * @param array<string, mixed> $row of the element
     * @param \Closure(string, string): array<string, mixed> $refuse
     * @return array<string, mixed>
     */
    private function renamed(array $row, mixed $name, bool $forgets, \Closure $refuse): array
    {
        if (! is_string($name) || trim($name) === '' || mb_strlen($name) > self::LONGEST_NAME) {
            return $refuse('refused', 'a name has from 1 to '.self::LONGEST_NAME.' characters');
        }
        if (! $forgets) {
            $this->store->run(
                'update nodes set published = coalesce(published, name), name = ?, version = version + 1
                where platform = ? and id = ?',
                [$name, $this->platform->host, $row['id']],
            );
        }

        return ['node' => $row['id'], 'state' => 'done', 'message' => '', 'version' => (int) $row['version'] + 1];
    }

    /**
     * @param array<string, mixed> $update
     * @param bool $forgets says that it is done and does nothing
     * @param string|null $standing what becomes of the ads written to, whatever is written
     * @return array<string, mixed>
     */
    private function update(string $account, array $update, bool $forgets, ?string $standing): array
    {
        $row =
            $this->store->rows('select * from nodes where platform = ? and account = ? and id = ?', [
                $this->platform->host,
                $account,
                (string) ($update['node'] ?? ''),
            ])[0] ?? null;
        $refuse = static fn (string $state, string $why): array => [
            'node' => $update['node'] ?? null,
            'state' => $state,
            'message' => $why,
            'version' => isset($row['version']) ? (int) $row['version'] : null,
        ];
        if ($row === null) {
            return $refuse('unknown', 'there is no such node');
        }
        if ((int) $row['version'] !== ($update['version'] ?? null)) {
            return $refuse('stale', "the node has version {$row['version']} now");
        }
        if (isset($update['setting'])) {
            return $this->switched(
                $row,
                (string) $update['setting'],
                $update['value'] ?? null,
                $forgets,
                $refuse,
            );
        }
        $value = $update['value'] ?? null;
        if (($update['slot'] ?? '') === 'name') {
            return $this->renamed($row, $value, $forgets, $refuse);
        }
        $column = isset($update['slot']) ? 'slots' : 'custom';
        $name = (string) ($update['slot'] ?? ($update['custom'] ?? ''));
        $map = json_decode($row[$column], true);
        if ($value === null) {
            unset($map[$name]);
        } else {
            $map[$name] = (string) $value;
        }
        $problem = $this->platform->problem(
            $row['level'],
            $column,
            $name,
            $value === null ? null : (string) $value,
            $map,
        );
        if ($problem !== null) {
            return $refuse('refused', $problem);
        }
        if (! $forgets) {
            $isAd = $row['level'] === $this->platform->adLevel();
            $looked = $isAd && ($standing !== null || ($column === 'slots' && $name === 'landing'));
            $this->store->run(
                "update nodes set {$column} = ?, version = version + 1, standing = ?, reviewed = ? where "
                    .'platform = ? '
                    .'and id = ?',
                [
                    json_encode((object) $map, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES),
                    $looked ? $standing ?? 'review' : $row['standing'],
                    $looked ? time() + self::REVIEW_SECONDS : $row['reviewed'],
                    $this->platform->host,
                    $row['id'],
                ],
            );
        }

        return ['node' => $row['id'], 'state' => 'done', 'message' => '', 'version' => (int) $row['version'] + 1];
    }
}
