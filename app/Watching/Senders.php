<?php

namespace App\Watching;

use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use App\Models\Text;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Decode\Decoders;
use Vestigon\Core\Decode\Fit;
use Vestigon\Core\Decode\History;
use Vestigon\Core\Decode\Mold;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Watch\Instant;

/** The ads that can have sent a landing URL, by the texts that stand there and that stood there once. */
final class Senders
{
    /** Of a larger account only ads with the URL's page as landing URL are looked at. */
    private const WHOLE = 3000;

    /** So many of those. */
    private const MOST = 2000;

    private const TOLD = 25;

    /** @return list<array<string, mixed>> */
    public function of(Client $client, string $url): array
    {
        $told = [];
        foreach ($client->accounts()->orderBy('name')->get() as $account) {
            $decoders = new Decoders(self::history($account, $url));
            [$time, $fits] = $decoders->fits($url, null);
            foreach ($fits as $fit) {
                $told[] = self::told($account, $decoders->history, $fit, $time);
            }
        }

        return array_slice($told, 0, self::TOLD);
    }

    /** @return array<string, mixed> */
    private static function told(Account $account, History $history, Fit $fit, int $time): array
    {
        $core = $history->account;
        $keys = $core->keysTo($fit->ad);
        [$since, $until] = $history->stood($keys, $time);

        return [
            'node' => (int) $fit->ad,
            'account' => $account->id,
            'platform' => $core->dialect->title,
            'path' => array_map(static fn (string $k): string => $core->nodes[$k]->name, $keys),
            'externalId' => $core->nodes[$fit->ad]->id,
            'since' => $since === null ? null : Instant::text($since),
            'until' => $until === null ? null : Instant::text($until),
            'values' => (object) array_filter($fit->values, static fn (string $v): bool => $v !== ''),
        ];
    }

    private static function history(Account $account, string $url): History
    {
        $core = self::account($account, Mold::addressOf($url));
        $nodes = array_map(intval(...), array_keys($core->nodes));
        $changed = Text::query()
            ->whereIntegerInRaw('node_id', $nodes)
            ->whereNotNull('until')
            ->distinct()
            ->pluck('node_id')
            ->all();
        $texts = Text::query()
            ->whereIntegerInRaw('node_id', $changed)
            ->where('kind', '<>', 'setting')
            ->orderBy('id')
            ->toBase()
            ->get(['node_id', 'kind', 'name', 'text', 'since', 'until'])
            ->map(
                static fn (object $t): array => [
                    'node' => (string) $t->node_id,
                    ...$t->kind === 'custom' ? ['custom' => $t->name] : ['slot' => $t->kind],
                    'text' => $t->text,
                    'since' => str_replace(' ', 'T', $t->since).'Z',
                    'until' => $t->until === null ? null : str_replace(' ', 'T', $t->until).'Z',
                ],
            )
            ->all();

        return History::read($core, new Cursor($texts));
    }

    private static function account(Account $account, string $address): CoreAccount
    {
        $ads = (int) Node::query()->where('account_id', $account->id)->whereNull('parent_id')->value('ads');
        if ($ads <= self::WHOLE) {
            return Trees::whole($account);
        }
        $ids = Text::query()
            ->join('nodes', 'nodes.id', 'texts.node_id')
            ->where(['nodes.account_id' => $account->id, 'nodes.is_ad' => true, 'texts.kind' => 'landing'])
            ->whereNull('nodes.gone_at')
            ->where('texts.text', 'like', addcslashes($address, '%_\\').'%')
            ->distinct()
            ->limit(self::MOST)
            ->pluck('nodes.id')
            ->all();
        $branch = Trees::branch($account, ...$ids);
        $nodes = $parents = [];
        foreach ($ids as $id) {
            $above = null;
            foreach (array_combine($branch->ids($id), $branch->path($id)->nodes) as $key => $node) {
                $nodes[(string) $key] = $node;
                $parents[(string) $key] = $above;
                $above = (string) $key;
            }
        }

        return new CoreAccount(
            Trees::dialect($account),
            Trees::settings($account),
            Trees::hops($account),
            $nodes,
            $parents,
        );
    }
}
