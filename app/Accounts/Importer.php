<?php

namespace App\Accounts;

use App\Connectors\Connector;
use App\Connectors\RemoteAccount;
use App\Connectors\RemoteNode;
use App\Events\WorkWentOn;
use App\Models\Account;
use App\Models\Connection;
use App\Models\Import;
use App\Models\ImportStatus;
use App\Models\Node;
use App\Outside\Noticing;
use App\Support\Bulk;
use Carbon\CarbonImmutable;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Level;
use Vestigon\Core\Dialect\Role;

/**
 * Brings a platform's accounts in, level by level, in chunks that can be repeated safely.
 *
 * What can't be taken over is set apart, with the reason; what is not delivered any more is let go: see Departures.
 */
final class Importer
{
    private const CHUNK = 500;

    /** What is told of a node that came. */
    private const TOLD = 'id, account_id, external_id, name, type, standing, is_ad, parent_id, gone_at';

    /** What a node that is known already takes over from the platform. */
    private const TAKEN_OVER = [
        'parent_id',
        'position',
        'name',
        'published_name',
        'type',
        'facts',
        'keywords',
        'version',
        'import_id',
        'standing',
        'said',
    ];

    private int $position = 0;

    private Noticing $noticing;

    /** Is what is not delivered not there? */
    private bool $deliversAll = true;

    /** @var list<string> what a person should know of it */
    public array $notes = [];

    public function __construct(
        private readonly Connector $connector,
        private readonly Connection $connection,
        private readonly Dialect $dialect,
        private readonly Import $import,
    ) {}

    /** @return list<Account> */
    public function run(): array
    {
        $remotes = $this->connector->accounts($this->connection);
        $only = $this->connection->only_accounts === null ? null : explode(',', $this->connection->only_accounts);
        $remotes = array_values(
            array_filter(
                $remotes,
                static fn (RemoteAccount $r): bool => $only === null || in_array($r->id, $only, true),
            ),
        );
        $this->import->update([
            'status' => ImportStatus::Running,
            'total' => array_sum(array_map(static fn (RemoteAccount $r): int => $r->nodes, $remotes)),
            'done' => 0,
        ]);
        $accounts = array_map($this->account(...), $remotes);
        foreach (
            Account::query()
                ->where('connection_id', $this->connection->id)
                ->whereKeyNot(array_map(static fn (Account $a): int => $a->id, $accounts))
                ->pluck('name') as $name
        ) {
            $this->notes[] =
                "{$this->connection->title} does not list {$name} any more. What we know of it is kept "
                .'as it was.';
        }
        $this->connection->forceFill(['imported_at' => now()])->save();

        return $accounts;
    }

    private function account(RemoteAccount $remote): Account
    {
        $account = Account::query()->updateOrCreate(
            ['connection_id' => $this->connection->id, 'external_id' => $remote->id],
            [
                'client_id' => $this->connection->client_id,
                'dialect' => $this->dialect->id,
                'name' => mb_substr($remote->name, 0, 255),
                'plan_revision' => null,
            ],
        );
        $this->position = 0;
        $this->noticing = new Noticing($account, $this->import);
        $this->deliversAll = $remote->lost === null;
        foreach ($this->dialect->levels as $level) {
            $this->import->update(['step' => mb_substr("{$remote->name}: {$level->label}", 0, 600)]);
            $chunk = [];
            $asked = CarbonImmutable::now();
            foreach ($this->connector->nodes($this->connection, $remote->id, $level->id) as $node) {
                $chunk[] = $node;
                if (count($chunk) === self::CHUNK) {
                    $this->take($account, $chunk, $level, $asked);
                    $chunk = [];
                    $asked = CarbonImmutable::now();
                }
            }
            $this->take($account, $chunk, $level, $asked);
        }
        array_push(
            $this->notes,
            ...(new Departures($account, $this->import, $this->connection->title))->after($remote),
        );
        $this->noticing->departures();
        $account->update(['imported_at' => now(), 'known_since' => $account->known_since ?? now()]);

        return $account;
    }

    /**
     * @param list<RemoteNode> $remotes
     * @param CarbonImmutable $asked when the platform was asked for them: what we have written since is newer
     */
    private function take(Account $account, array $remotes, Level $level, CarbonImmutable $asked): void
    {
        if ($remotes === []) {
            return;
        }
        DB::transaction(function () use ($account, $remotes, $level, $asked): void {
            $fit = $gone = [];
            foreach ($remotes as $remote) {
                $why = Misfit::why($remote, $level);
                match (true) {
                    $why !== null => $this->setApart($account, $remote, $why),
                    $remote->standing === RemoteNode::GONE => $gone[] = $remote->id,
                    default => $fit[$remote->id] = $remote,
                };
            }
            Departures::letGoNamed($account, $level->id, $gone);
            $parents = $this->parents($account, $fit, $level);
            foreach ($level->depth === 0 ? [] : $fit as $id => $remote) {
                if (! isset($parents[$this->above($remote, $level)][$remote->parent ?? ''])) {
                    $this->setApart(
                        $account,
                        $remote,
                        $remote->parent === null
                            ? 'the platform did not say what it stands under'
                            : "the platform did not deliver what it stands under ({$remote->parent})",
                    );
                    unset($fit[$id]);
                }
            }
            $this->keep($account, $fit, $parents, $level, $asked);
        }, 5);
        $this->import->increment('done', count($remotes));
        WorkWentOn::dispatch();
    }

    /**
     * @param array<string, RemoteNode> $remotes
     * @param array<string, array<string, int>> $parents by level and number
     */
    private function keep(
        Account $account,
        array $remotes,
        array $parents,
        Level $level,
        CarbonImmutable $asked,
    ): void {
        $rows = array_map(
            fn (RemoteNode $r): array => [
                'account_id' => $account->id,
                'parent_id' => $level->depth === 0 ? null : $parents[$this->above($r, $level)][$r->parent ?? ''],
                'level' => $r->level,
                'depth' => $level->depth,
                'position' => $this->position++,
                'external_id' => $r->id,
                'name' => mb_substr($r->name, 0, 255),
                'type' => $r->type,
                'published_name' => $r->publishedName === null ? null : mb_substr($r->publishedName, 0, 255),
                'facts' => $r->facts === [] ? null : json_encode($r->facts),
                'keywords' => json_encode($r->keywords),
                'version' => $r->version,
                'import_id' => $this->import->id,
                'is_ad' => $level->role === Role::Ad,
                'standing' => $r->standing,
                'said' => $r->said,
            ],
            array_values($remotes),
        );
        $numbers = array_map(strval(...), array_keys($remotes));
        $known = self::elements($account, $level, $numbers);
        $nodes = (new Collection(Bulk::upsert('nodes', $rows, self::TAKEN_OVER, self::TOLD)))->keyBy('id');
        $renamed = $nodes->filter(static fn (object $n): bool => ($known[$n->id]->name ?? null) !== $n->name);
        NameWords::drop($known->isEmpty() ? [] : $renamed->pluck('id')->all());
        NameWords::add($renamed->all());
        FormerNames::keep($known, $nodes, now());
        Departures::takeIn($nodes->whereNotNull('gone_at')->pluck('id')->all());
        $live = [];
        foreach ($nodes as $node) {
            $live[$node->id] = $remotes[$node->external_id];
        }
        $texts = [];
        if ($known->isEmpty()) {
            LiveTexts::begin($live);
        } else {
            $texts = LiveTexts::sync($live, $asked);
        }
        $this->noticing->chunk($known, $nodes, $texts);
    }

    /**
     * @param list<string> $numbers
     * @return Collection<int, object> rows of those that are known, by id
     */
    private static function elements(Account $account, Level $level, array $numbers): Collection
    {
        return Node::withTrashed()
            ->numbered($account->id, $level->id, $numbers)
            ->toBase()
            ->selectRaw(self::TOLD)
            ->get()
            ->keyBy('id');
    }

    /**
     * @param array<string, RemoteNode> $remotes
     * @return array<string, array<string, int>> ids of what they stand under, by level and number: of that which this
     *     import has delivered, where it delivers all
     */
    private function parents(Account $account, array $remotes, Level $level): array
    {
        $wanted = [];
        foreach ($level->depth === 0 ? [] : $remotes as $remote) {
            if ($remote->parent !== null) {
                $wanted[$this->above($remote, $level)][$remote->parent] = true;
            }
        }

        $parents = [];
        foreach ($wanted as $above => $numbers) {
            $parents[$above] = Node::query()
                ->numbered($account->id, $above, array_map(strval(...), array_keys($numbers)))
                ->when($this->deliversAll, fn ($q) => $q->where('import_id', $this->import->id))
                ->pluck('id', 'external_id')
                ->all();
        }

        return $parents;
    }

    /** The level of what an element stands under. */
    private function above(RemoteNode $remote, Level $level): string
    {
        return $remote->parentLevel ?? $this->dialect->levels[max(0, $level->depth - 1)]->id;
    }

    private function setApart(Account $account, RemoteNode $remote, string $why): void
    {
        $text = static fn (string $t): string => mb_strcut(mb_scrub($t), 0, 2000);
        DB::table('set_apart')->insert([
            'account_id' => $account->id,
            'import_id' => $this->import->id,
            'level' => mb_substr(mb_scrub($remote->level), 0, 64),
            'external_id' => $text($remote->id),
            'name' => $text($remote->name),
            'why' => $text($why),
        ]);
    }
}
