<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

/**
 * Sessions and shares read off a whole story at once, definition by definition, with nothing of the product's in it but
 * what each view's origin is: to hold the product's own way, event by event, against.
 */
final class StoriesByHand
{
    private const MINUTE = 60_000;

    /**
     * @param list<array<string, mixed>> $events
     * @param \Closure(array<string, mixed>): array{tracked: bool, click: string|null, read: list<string>} $origin
     * @return list<list<array<string, mixed>>> the events of each session, by its first event
     */
    public static function sessions(array $events, \Closure $origin): array
    {
        $sessions = [];
        foreach (self::byVisitor(self::ordered($events)) as $own) {
            $session = [];
            foreach ($own as $event) {
                if ($session !== [] && self::isNew($session, $event, $origin)) {
                    $sessions[] = $session;
                    $session = [];
                }
                $session[] = $event;
            }
            $sessions[] = $session;
        }
        usort($sessions, static fn (array $a, array $b): int => self::place($a[0]) <=> self::place($b[0]));

        return $sessions;
    }

    /**
     * @param list<array<string, mixed>> $events
     * @param list<list<array<string, mixed>>> $sessions
     * @param array<string, string> $ads
     * @return array<string, list<array{session: int|null, ad?: string, value: int}>> by "site id" of conversions
     */
    public static function shares(
        array $events,
        array $sessions,
        \Closure $origin,
        string $model,
        int $days,
        array $ads,
    ): array {
        $shares = [];
        $orders = [];
        foreach (self::ordered($events) as $event) {
            if ($event['kind'] !== 'convert' || ($event['test'] ?? false)) {
                continue;
            }
            $order = ($event['order'] ?? '') === '' ? uniqid('', true) : "{$event['site']} {$event['order']}";
            if (isset($orders[$order])) {
                continue;
            }
            $orders[$order] = true;
            $candidates = array_keys(
                array_filter(
                    $sessions,
                    static function (array $s) use ($event, $origin, $days): bool {
                        $first = $s[0];
                        if ($first['kind'] !== 'view' || ! ($told = $origin($first))['tracked']) {
                            return false;
                        }
                        $leads = isset($event['click'])
                            ? $told['click'] === $event['click']
                            : $first['site'] === $event['site']
                                && ($event['visitor'] ?? '') !== ''
                                && ($first['visitor'] ?? '') === $event['visitor'];

                        return $leads
                            && $first['ms'] >= $event['ms'] - $days * 24 * 60 * self::MINUTE
                            && self::place($first) <= self::place($event);
                    },
                ),
            );
            $key = "{$event['site']} {$event['id']}";
            if ($candidates === [] && isset($event['click'], $ads[$event['click']])) {
                $shares[$key] = [['session' => null, 'ad' => $ads[$event['click']], 'value' => $event['value']]];

                continue;
            }
            if ($candidates === []) {
                $candidates = array_keys(
                    array_filter($sessions, static fn (array $s): bool => in_array($event, $s, true)),
                );
            }
            $chosen = match ($model) {
                'last' => [end($candidates)],
                'first' => [reset($candidates)],
                'even' => $candidates,
            };
            $shares[$key] = self::divided($chosen, $event['value']);
        }

        return $shares;
    }

    /**
     * Coin by coin, from the last on.
     *
     * @param list<int> $sessions
     * @return list<array{session: int, value: int}>
     */
    private static function divided(array $sessions, int $value): array
    {
        $shares = array_map(static fn (int $s): array => ['session' => $s, 'value' => 0], $sessions);
        for ($coin = 0; $coin < abs($value); $coin++) {
            $shares[count($shares) - 1 - $coin % count($shares)]['value'] += $value <=> 0;
        }

        return $shares;
    }

    /** @param list<array<string, mixed>> $session */
    private static function isNew(array $session, array $event, \Closure $origin): bool
    {
        if (30 * self::MINUTE < $event['ms'] - end($session)['ms']) {
            return true;
        }
        if ($event['kind'] !== 'view' || ! ($now = $origin($event))['tracked']) {
            return false;
        }
        $views = array_values(array_filter($session, static fn (array $e): bool => $e['kind'] === 'view'));
        if ($views === []) {
            return true;
        }
        $first = $origin($views[0]);
        if ($first['click'] !== null && $first['click'] === $now['click']) {
            return false;
        }

        return $first['read'] !== $now['read'] || $first['click'] !== $now['click'];
    }

    /**
     * @param list<array<string, mixed>> $events
     * @return array<string, non-empty-list<array<string, mixed>>>
     */
    private static function byVisitor(array $events): array
    {
        $visitors = [];
        foreach ($events as $i => $event) {
            $who = ($event['visitor'] ?? '') === '' ? "nobody {$i}" : "{$event['site']} {$event['visitor']}";
            $visitors[$who][] = $event;
        }

        return $visitors;
    }

    /**
     * @param list<array<string, mixed>> $events
     * @return list<array<string, mixed>> each record once, as it came first
     */
    private static function ordered(array $events): array
    {
        $records = [];
        foreach ($events as $event) {
            $records["{$event['site']} {$event['id']}"] ??= $event;
        }
        usort($records, static fn (array $a, array $b): int => self::place($a) <=> self::place($b));

        return $records;
    }

    /** @return array{int, string, string} */
    private static function place(array $event): array
    {
        return [$event['ms'], $event['id'], $event['site']];
    }
}
