<?php

namespace App\Watching;

use App\Accounts\Branches;
use App\Accounts\StoredTexts;
use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use App\Models\Text;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Decode\Decoder;
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
            [$decoder, $core] = $this->decoder($account, $url);
            foreach ($decoder->fits($url) as $fit) {
                $told[] = self::told($account, $core, $fit);
            }
        }

        return array_slice($told, 0, self::TOLD);
    }

    /** @return array{Decoder, CoreAccount} of the whole account; of a large one for the page that a URL leads to */
    public function decoder(Account $account, string $url): array
    {
        $history = self::history($account, $url);

        return [new Decoder($history), $history->account];
    }

    public static function isLookedAtWhole(Account $account): bool
    {
        return Node::query()->where('account_id', $account->id)->whereNull('parent_id')->value('ads') <= self::WHOLE;
    }

    /** @return array<string, mixed> */
    public static function told(Account $account, CoreAccount $core, Fit $fit): array
    {
        $version = $fit->version;

        return [
            'node' => (int) $version->ad,
            'account' => $account->id,
            'platform' => $core->dialect->title,
            'path' => array_column($version->path()->nodes, 'name'),
            'externalId' => $version->path()->last()->id,
            'since' => $version->since === null ? null : Instant::text($version->since),
            'until' => $version->until === null ? null : Instant::text($version->until),
            'values' => (object) array_filter($fit->values, static fn (string $v): bool => $v !== ''),
        ];
    }

    private static function history(Account $account, string $url): History
    {
        $core = self::account($account, Mold::addressOf($url));
        $nodes = array_map(intval(...), array_keys($core->nodes));
        $changed = Text::query()
            ->ofNodes($nodes)
            ->whereNotNull('until')
            ->distinct()
            ->pluck('node_id')
            ->all();
        $texts = Text::query()
            ->ofNodes($changed)
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
        if (self::isLookedAtWhole($account)) {
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
        $branch = Branches::of($account, ...$ids);
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
            StoredTexts::settings($account),
            Trees::hops($account),
            $nodes,
            $parents,
        );
    }
}
