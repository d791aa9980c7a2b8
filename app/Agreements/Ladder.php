<?php

namespace App\Agreements;

use App\Models\Client;
use Vestigon\Core\Channel\Channels;

/** What channel rules make of what has arrived. */
final readonly class Ladder
{
    private const SHOWN = 50;

    public function __construct(private Client $client) {}

    /** @return array{rules: array<int, int>, otherwise: int} arrivals that each rule took, and those that none took */
    public function caught(Channels $channels): array
    {
        $caught = array_fill(0, count($channels->rules), 0);
        $otherwise = 0;
        foreach (Lines::of($this->client, self::keys($channels)) as $line) {
            $rule = $channels->of($line['values'])->rule;
            $rule === null ? $otherwise += $line['arrivals'] : ($caught[$rule] += $line['arrivals']);
        }

        return ['rules' => $caught, 'otherwise' => $otherwise];
    }

    /**
     * Which lines would be counted elsewhere.
     *
     * @return array{stays: int, flows: list<array<string, mixed>>} arrivals; flows by size, each with its lines
     */
    public function shift(Channels $now, Channels $then): array
    {
        $flows = [];
        $stays = 0;
        foreach (Lines::of($this->client, [...self::keys($now), ...self::keys($then)]) as $line) {
            [$from, $to] = [$now->of($line['values'])->channel, $then->of($line['values'])->channel];
            if ($from === $to) {
                $stays += $line['arrivals'];

                continue;
            }
            $flow = &$flows["{$from}\0{$to}"];
            $flow ??= ['from' => $from, 'to' => $to, 'arrivals' => 0, 'count' => 0, 'lines' => []];
            $flow['arrivals'] += $line['arrivals'];
            $flow['count']++;
            $flow['lines'] = self::largest([...$flow['lines'], $line]);
            unset($flow);
        }
        usort($flows, static fn (array $a, array $b): int => $b['arrivals'] <=> $a['arrivals']);

        return ['stays' => $stays, 'flows' => $flows];
    }

    /**
     * @param list<array{values: array<string, string>, arrivals: int}> $lines
     * @return list<array{values: array<string, string>, arrivals: int}>
     */
    private static function largest(array $lines): array
    {
        if (count($lines) <= self::SHOWN) {
            return $lines;
        }
        usort($lines, static fn (array $a, array $b): int => $b['arrivals'] <=> $a['arrivals']);

        return array_slice($lines, 0, self::SHOWN);
    }

    /** @return list<string> the parameters that the rules look at */
    private static function keys(Channels $channels): array
    {
        $keys = array_values($channels->keys);
        foreach ($channels->rules as $rule) {
            foreach ($rule->all as $test) {
                $keys[] = $channels->keys[$test->key] ?? $test->key;
            }
        }

        return array_values(array_unique($keys));
    }
}
