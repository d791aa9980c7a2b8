<?php

namespace App\Http\Controllers;

use App\Balance\Asked;
use App\Balance\Claims;
use App\Balance\Sessions;
use App\Balance\Stairs;
use App\Http\Requests\BalanceRequest;
use App\Jobs\RollResults;
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
        $left = $this->left($request, $client); // before what is told: it may grow while it is read
        $told = $this->told(
            $request,
            $client,
            $this->stairs->of(...),
            static fn (array $line): array => [$line[0]->clicks],
            static fn (array $line): array => $line[0]->toArray() + ['cost' => $line[1]],
        );

        return new JsonResponse($told + ['left' => $left]);
    }

    /** What platforms claim to have brought, down to what counts for them here. */
    public function claims(BalanceRequest $request, Client $client): JsonResponse
    {
        $left = $this->left($request, $client); // before what is told: it may grow while it is read
        $told = $this->told(
            $request,
            $client,
            $this->claims->of(...),
            static fn (array $line): array => [$line['revenue']->claimed, $line['conversions']->claimed],
            static fn (array $line): array => array_map(static fn (Claim $c): array => $c->toArray(), $line),
        );

        return new JsonResponse($told + ['left' => $left]);
    }

    /** How many days are not added up yet; a worker does. */
    private function left(BalanceRequest $request, Client $client): int
    {
        $left = $this->stairs->left($client, $request->validated('from'), $request->validated('to'));
        if ($left > 0) {
            RollResults::dispatch($client->id);
        }

        return $left;
    }

    /**
     * @template L of array
     * @param \Closure(Asked): array<L> $lines
     * @param \Closure(L): list<int> $size what a line is ordered by, the largest first
     * @param \Closure(L): array<string, mixed> $told a line as it is answered
     * @return array<string, mixed>
     */
    private function told(
        BalanceRequest $request,
        Client $client,
        \Closure $lines,
        \Closure $size,
        \Closure $told,
    ): array {
        [$from, $to, $by] = [$request->validated('from'), $request->validated('to'), $request->validated('by')];
        $asked = new Asked($client, $from, $to, [$by], $request->within(), new Sessions($request->reading()));
        $found = $lines($asked);
        uasort($found, static fn (array $a, array $b): int => $size($b) <=> $size($a));
        $shown = array_slice($found, 0, self::MOST, true);
        $names = $this->names->of($client, self::DIMENSIONS[$by], array_map(strval(...), array_keys($shown)));
        $all = $lines($asked->together())[''] ?? null;

        return [
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
            'more' => count($found) - count($shown),
            'provisional' => now($client->time_zone)->subDays(Settings::of($client)->provisional)->toDateString(),
        ];
    }
}
