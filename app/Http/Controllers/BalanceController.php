<?php

namespace App\Http\Controllers;

use App\Balance\Claims;
use App\Balance\Stairs;
use App\Http\Requests\BalanceRequest;
use App\Models\Client;
use App\Results\Dimension;
use App\Results\Names;
use App\Watching\Settings;
use Illuminate\Http\JsonResponse;
use Vestigon\Core\Watch\Claim;

/** From clicks that were paid for down to those that arrived where they should be. */
final readonly class BalanceController
{
    /** Lines at the most, those with the most clicks. */
    private const MOST = 200;

    private const DIMENSIONS = [
        'platform' => Dimension::Platform,
        'account' => Dimension::Account,
        'campaign' => Dimension::AdCampaign,
        'ad' => Dimension::Ad,
    ];

    public function __construct(private Stairs $stairs, private Claims $claims, private Names $names) {}

    public function clicks(BalanceRequest $request, Client $client): JsonResponse
    {
        [$from, $to, $by] = [$request->validated('from'), $request->validated('to'), $request->validated('by')];
        $within = $request->within();
        $lines = $this->stairs->of($client, $from, $to, $by, $within);
        uasort($lines, static fn (array $a, array $b): int => $b[0]->clicks <=> $a[0]->clicks);
        $shown = array_slice($lines, 0, self::MOST, true);
        $names = $this->names->of($client, self::DIMENSIONS[$by], array_map(strval(...), array_keys($shown)));
        $all = $this->stairs->of($client, $from, $to, null, $within)[''] ?? null;

        return new JsonResponse([
            'total' => $all === null ? null : $all[0]->toArray() + ['cost' => $all[1]],
            'lines' => array_map(
                static fn (string|int $key, array $line): array => [
                    'key' => (string) $key,
                    'name' => $names[$key] ?? (string) $key,
                    ...$line[0]->toArray(),
                    'cost' => $line[1],
                ],
                array_keys($shown),
                $shown,
            ),
            'more' => count($lines) - count($shown),
            'provisional' => self::provisional($client),
        ]);
    }

    /** What platforms claim to have brought, down to what counts for them here. */
    public function claims(BalanceRequest $request, Client $client): JsonResponse
    {
        [$from, $to, $by] = [$request->validated('from'), $request->validated('to'), $request->validated('by')];
        $within = $request->within();
        $lines = $this->claims->of($client, $from, $to, $by, $within);
        $size = static fn (array $l): array => [$l['revenue']->claimed, $l['conversions']->claimed];
        uasort($lines, static fn (array $a, array $b): int => $size($b) <=> $size($a));
        $shown = array_slice($lines, 0, self::MOST, true);
        $names = $this->names->of($client, self::DIMENSIONS[$by], array_map(strval(...), array_keys($shown)));
        $told = static fn (array $line): array => array_map(static fn (Claim $c): array => $c->toArray(), $line);
        $all = $this->claims->of($client, $from, $to, null, $within)[''] ?? null;

        return new JsonResponse([
            'total' => $all === null ? null : $told($all),
            'lines' => array_map(
                static fn (string|int $key, array $line): array => [
                    'key' => (string) $key,
                    'name' => $names[$key] ?? (string) $key,
                    ...$told($line),
                ],
                array_keys($shown),
                $shown,
            ),
            'more' => count($lines) - count($shown),
            'provisional' => self::provisional($client),
        ]);
    }

    private static function provisional(Client $client): string
    {
        return now($client->time_zone)->subDays(Settings::of($client)->provisional)->toDateString();
    }
}
