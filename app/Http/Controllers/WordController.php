<?php

namespace App\Http\Controllers;

use App\Accounts\Selection;
use App\Agreements\Agreements;
use App\Agreements\WordUses;
use App\Bulk\DraftedEdit;
use App\Http\Problem;
use App\Http\Requests\WordRequest;
use App\Models\Account;
use App\Models\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Plan\Cell;

/** The words of keys: who uses them, and the change that carries another one out. */
final class WordController
{
    /** Words that arrive are told of by how often they do, up to this many of each key. */
    private const SHOWN = 200;

    public function __construct(private readonly Agreements $agreements) {}

    /** What arrives with each key that has words, or that the plan has: is it allowed, retired, unknown? */
    public function index(Client $client): JsonResponse
    {
        $words = $this->agreements->words($client);
        $plan = $client->plan()?->read();
        $uses = new WordUses($client);
        $today = Agreements::today($client);
        $keys = array_map(strval(...), array_keys(array_flip($plan?->keys() ?? []) + $words->keys));

        return new JsonResponse([
            'keys' => array_map(static function (string $key) use ($words, $plan, $uses, $today): array {
                $list = $words->of($key, $today);
                $agreed = array_column($words->keys[$key] ?? [], 'word');
                $arrived = $uses->arrivals($key, $agreed, self::SHOWN);
                $all = array_keys($arrived + array_fill_keys($agreed, 0));

                return [
                    'key' => $key,
                    'words' => array_map(
                        static function (string|int $word) use ($key, $list, $arrived, $plan): array {
                            $judged = $list->judged((string) $word);

                            return [
                                'word' => (string) $word,
                                'standing' => $judged->standing,
                                'use' => $judged->use,
                                'arrivals' => $arrived[$word] ?? 0,
                                'plan' => count(WordUses::inPlan($plan, $key, (string) $word)),
                            ];
                        },
                        $all,
                    ),
                ];
            }, $keys),
        ]);
    }

    /** What a retirement would touch. */
    public function reach(WordRequest $request, Client $client): JsonResponse
    {
        $wanted = $request->validated();
        $uses = new WordUses($client);

        return new JsonResponse([
            'plan' => array_map(
                static fn (Cell $c): array => ['platform' => $c->platform, 'fallback' => $c->fallback],
                WordUses::inPlan($client->plan()?->read(), $wanted['key'], $wanted['word']),
            ),
            'accounts' => $uses->inTexts($wanted['key'], $wanted['word']),
            'arrivals' => $uses->arrivals($wanted['key'], [$wanted['word']], 0)[$wanted['word']] ?? 0,
        ]);
    }

    /** Drafts a change for each account whose texts say the word, to say the other one. */
    public function change(WordRequest $request, Client $client): JsonResponse
    {
        ['key' => $key, 'word' => $word, 'use' => $use] = $request->validated() + ['use' => null];
        $plan = $client->plan();
        if ($use === null || $plan === null) {
            return Problem::response(
                422,
                $use === null ? 'Say which word takes its place.' : 'There is no plan yet. Write it first.',
            );
        }
        $edit = [
            'kind' => 'replace',
            'slots' => ['template', 'suffix', 'landing'],
            'find' => WordUses::pattern($key, $word),
            'with' => "{$key}={$use}",
            'pattern' => true,
        ];
        $accounts = array_column((new WordUses($client))->inTexts($key, $word), 'id');
        // all of them, or none
        $drafted = DB::transaction(
            static fn (): array => $client
                ->accounts()
                ->whereKey($accounts)
                ->with('client')
                ->get()
                ->map(
                    static fn (Account $a): int => (new DraftedEdit($a, $plan, $request->user()->id))->draft(
                        Selection::of($a, []),
                        $edit,
                        "Say {$use} for {$word} in {$key}",
                        "“{$word}” is retired.",
                    )[1],
                )
                ->all(),
        );

        return $drafted === []
            ? Problem::response(422, "No text says {$key}={$word}, so there is nothing to draft.")
            : new JsonResponse(['changes' => $drafted], 201);
    }
}
