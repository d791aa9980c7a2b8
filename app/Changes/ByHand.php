<?php

namespace App\Changes;

use App\Accounts\Trees;
use App\Http\Problem;
use App\Jobs\DraftChange;
use App\Models\Account;
use App\Models\ChangeStatus;
use App\Models\ChangeWrite;
use App\Models\Client;
use App\Models\Node;
use App\Models\Text;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Setting;

/** Changes whose texts a person chose, in place of a plan's. */
final class ByHand
{
    public const MOST = 50_000;

    private const LONGEST_NAME = 255;

    /** @return list<int> the nodes of an account that have the very text that a node has */
    public static function sameText(Account $account, int $node, string $kind, string $name): array
    {
        $text = Text::query()
            ->where(['node_id' => $node, 'kind' => $kind, 'name' => $name])
            ->whereNull('until')
            ->value('text');

        return $text === null
            ? []
            : Text::query()
                ->join('nodes', 'nodes.id', 'texts.node_id')
                ->where(['nodes.account_id' => $account->id, 'kind' => $kind, 'texts.name' => $name])
                ->whereNull('until')
                ->whereNull('nodes.gone_at')
                ->where('texts.text', $text)
                ->orderBy('nodes.depth')
                ->orderBy('nodes.position')
                ->limit(self::MOST)
                ->pluck('nodes.id')
                ->all();
    }

    /**
     * What is wrong with what the account is to switch; null: nothing.
     *
     * @param list<array{node: int, kind: string, name: string, text: string|null}> $texts
     */
    private static function wrongSwitch(Account $account, array $texts): ?string
    {
        $dialect = Trees::dialect($account);
        foreach (array_filter($texts, static fn (array $t): bool => $t['kind'] === 'setting') as $t) {
            $choices = Setting::tryFrom($t['name'])?->choices($dialect) ?? [];
            if ($choices === []) {
                return "{$dialect->title} lets nobody switch “{$t['name']}”.";
            }
            if ($t['text'] !== null && ! in_array($t['text'], $choices, true)) {
                return "On {$dialect->title}, {$t['name']} is one of ".implode(', ', $choices).'.';
            }
            if (Node::query()->whereKey($t['node'])->value('depth') !== 0) {
                return 'Only the account itself is switched, not what stands below it.';
            }
        }

        return null;
    }

    /**
     * What is wrong with what elements are to be called; null: nothing.
     *
     * @param list<array{node: int, kind: string, name: string, text: string|null}> $texts
     */
    private static function wrongName(array $texts): ?string
    {
        foreach ($texts as $t) {
            $name = $t['kind'] === 'name' ? (string) $t['text'] : 'free';
            if (trim($name) === '' || mb_strlen($name) > self::LONGEST_NAME || preg_match('/[\x00-\x1F\x7F]/', $name)) {
                return 'A name has from 1 to '
                    .self::LONGEST_NAME
                    .' characters, in one line: “'
                    .mb_strimwidth(mb_scrub($name), 0, 60, '…')
                    .'” can’t be one.';
            }
        }

        return null;
    }

    /** @param list<array{node: int, kind: string, name: string, text: string|null}> $texts */
    public static function draft(
        Client $client,
        Account $account,
        string $title,
        string $reason,
        array $texts,
        int $user,
    ): JsonResponse {
        $plan = $client->plan();
        if ($plan === null) {
            return Problem::response(
                422,
                'There is no plan yet. Write it first: a change shows what it does to the agreement.',
            );
        }
        $nodes = array_values(array_unique(array_column($texts, 'node')));
        if (
            $texts === []
            || Node::query()->where('account_id', $account->id)->whereIntegerInRaw('id', $nodes)->count()
                !== count($nodes)
        ) {
            return Problem::response(422, "Each text must be for an element of {$account->name}.");
        }
        $wrong = self::wrongSwitch($account, $texts) ?? self::wrongName($texts);
        if ($wrong !== null) {
            return Problem::response(422, $wrong);
        }
        $change = DB::transaction(static function () use (
            $client,
            $account,
            $title,
            $reason,
            $texts,
            $user,
            $plan,
        ): int {
            $change = $client->changes()->create([
                'account_id' => $account->id,
                'title' => mb_substr($title, 0, 200),
                'reason' => $reason,
                'status' => ChangeStatus::Drafting,
                'plan_revision' => $plan->revision,
                'policy' => ['by' => 'hand'],
                'user_id' => $user,
            ]);
            foreach (array_chunk($texts, 500, true) as $some) {
                ChangeWrite::query()->insert(
                    array_map(
                        static fn (array $t, int $i): array => [
                            'change_id' => $change->id,
                            'position' => $i,
                            'node_id' => $t['node'],
                            'kind' => $t['kind'],
                            'name' => $t['name'],
                            'after' => $t['text'],
                        ],
                        $some,
                        array_keys($some),
                    ),
                );
            }

            return $change->id;
        });
        DraftChange::dispatch($change);

        return new JsonResponse(['id' => $change], 202);
    }
}
