<?php

namespace App\Accounts;

use App\Connectors\Connector;
use App\Connectors\RemoteAccount;
use App\Connectors\RemoteNode;
use App\Models\Account;
use App\Models\Connection;
use App\Models\Import;
use App\Models\Node;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;

/** Brings a platform's accounts in, level by level, in chunks that can be repeated safely. */
final class Importer
{
    private const CHUNK = 500;

    private int $position = 0;

    public function __construct(private readonly Connector $connector, private readonly Connection $connection, private readonly Dialect $dialect, private readonly Import $import) {}

    /** @return list<Account> */
    public function run(): array
    {
        $remotes = $this->connector->accounts($this->connection);
        $only = $this->connection->only_accounts === null ? null : explode(',', $this->connection->only_accounts);
        $remotes = array_values(array_filter($remotes, static fn (RemoteAccount $r): bool => $only === null || in_array($r->id, $only, true)));
        $this->import->update(['status' => 'running', 'total' => array_sum(array_map(static fn (RemoteAccount $r): int => $r->nodes, $remotes)), 'done' => 0]);
        $accounts = array_map($this->account(...), $remotes);
        $this->connection->forceFill(['imported_at' => now()])->save();

        return $accounts;
    }

    private function account(RemoteAccount $remote): Account
    {
        $account = Account::query()->updateOrCreate(
            ['connection_id' => $this->connection->id, 'external_id' => $remote->id],
            ['client_id' => $this->connection->client_id, 'dialect' => $this->dialect->id, 'name' => $remote->name, 'settings' => $remote->settings, 'hops' => config('platforms.hops', []), 'plan_revision' => null],
        );
        $this->position = 0;
        foreach ($this->dialect->levels as $level) {
            $this->import->update(['step' => "{$remote->name}: {$level->label}"]);
            $chunk = [];
            foreach ($this->connector->nodes($this->connection, $remote->id, $level->id) as $node) {
                $chunk[] = $node;
                if (count($chunk) === self::CHUNK) {
                    $this->take($account, $chunk, $level->depth, $level->role === Role::Ad);
                    $chunk = [];
                }
            }
            $this->take($account, $chunk, $level->depth, $level->role === Role::Ad);
        }
        Node::query()->where('account_id', $account->id)->where('import_id', '<>', $this->import->id)->delete();
        $account->update(['imported_at' => now(), 'known_since' => $account->known_since ?? now()]);

        return $account;
    }

    /** @param list<RemoteNode> $remotes */
    private function take(Account $account, array $remotes, int $depth, bool $isAd): void
    {
        if ($remotes === []) {
            return;
        }
        DB::transaction(function () use ($account, $remotes, $depth, $isAd): void {
            $parents = Node::query()->where('account_id', $account->id)->where('depth', $depth - 1)
                ->whereIn('external_id', array_unique(array_filter(array_map(static fn (RemoteNode $r): ?string => $r->parent, $remotes))))->pluck('id', 'external_id');
            Node::query()->upsert(array_map(fn (RemoteNode $r): array => [
                'account_id' => $account->id, 'parent_id' => $r->parent === null ? null : ($parents[$r->parent] ?? null), 'level' => $r->level, 'depth' => $depth,
                'position' => $this->position++, 'external_id' => $r->id, 'name' => mb_substr($r->name, 0, 255), 'type' => $r->type,
                'published_name' => $r->publishedName === null ? null : mb_substr($r->publishedName, 0, 255), 'facts' => $r->facts === [] ? null : json_encode($r->facts),
                'keywords' => json_encode($r->keywords), 'version' => $r->version, 'import_id' => $this->import->id, 'is_ad' => $isAd, 'standing' => $r->standing,
            ], $remotes), ['account_id', 'level', 'external_id'], ['parent_id', 'position', 'name', 'published_name', 'type', 'facts', 'keywords', 'version', 'import_id', 'standing']);
            $ids = Node::query()->where('account_id', $account->id)->where('level', $remotes[0]->level)
                ->whereIn('external_id', array_map(static fn (RemoteNode $r): string => $r->id, $remotes))->pluck('id', 'external_id');
            LiveTexts::sync(array_combine(array_map(static fn (RemoteNode $r): int => $ids[$r->id], $remotes), $remotes));
        });
        $this->import->increment('done', count($remotes));
    }
}
