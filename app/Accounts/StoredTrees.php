<?php

namespace App\Accounts;

use App\Agreements\Agreements;
use App\Dialects\Dialects;
use App\Models\Account;
use App\Models\Node;
use App\Models\Text;
use App\Models\Tracker;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Account\Node as CoreNode;
use Vestigon\Core\Compile\Progress;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Trace\Hop;

/** Hands stored accounts to the core. */
final readonly class StoredTrees
{
    private const CHUNK = 2000;

    public function __construct(private Dialects $dialects, private Agreements $agreements) {}

    public function dialect(Account $account): Dialect
    {
        return $this->dialects->of($account->client_id, $account->dialect);
    }

    public function names(Account $account): NamedNodes
    {
        return new NamedNodes(
            $account,
            $this->dialect($account),
            $this->agreements->names($account->client_id),
        );
    }

    /** @return list<Hop> */
    public function hops(Account $account): array
    {
        return Tracker::query()->where('client_id', $account->client_id)->orderBy('id')->get()->map->hop()->all();
    }

    /** The whole tree, nodes by their database id. For jobs only. */
    public function whole(Account $account): CoreAccount
    {
        $wide = $this->wide($account);
        $nodes = $wide->nodes;
        $parents = $wide->parents;
        foreach ($this->each($account, ads: true) as $row => $node) {
            $nodes[(string) $row->id] = $node;
            $parents[(string) $row->id] = $row->parent_id === null ? null : (string) $row->parent_id;
        }

        return new CoreAccount($wide->dialect, $wide->settings, $wide->hops, $nodes, $parents);
    }

    /**
     * Some elements with all that stands above and below them.
     *
     * @param list<int> $tops
     */
    public function around(Account $account, array $tops, Progress $progress = new Progress()): CoreAccount
    {
        $progress->step('reading the account');
        $rows = array_column(Branches::upwards($account, $tops), null, 'id');
        for ($level = $tops; $level !== []; $level = $below) {
            $below = [];
            foreach (array_chunk($level, self::CHUNK) as $some) {
                $found = Node::query()
                    ->where('account_id', $account->id)
                    ->whereIntegerInRaw('parent_id', $some)
                    ->toBase()
                    ->get();
                foreach ($found as $row) {
                    $rows[$row->id] = $row;
                    $below[] = $row->id;
                }
            }
        }
        $progress->passed(count($rows));

        return $this->of($account, array_values($rows));
    }

    /**
     * Some elements with all that stands above them.
     *
     * @param list<int> $elements
     */
    public function to(Account $account, array $elements): CoreAccount
    {
        return $this->of($account, Branches::upwards($account, $elements));
    }

    /** What stands above the first ads behind a number in the database, so many of them. */
    public function above(Account $account, int $behind, int $most): CoreAccount
    {
        $ads = Node::query()
            ->forceIndex('nodes_account_id_depth_index')
            ->where(['account_id' => $account->id, 'depth' => count($this->dialect($account)->levels) - 1])
            ->where('id', '>', $behind)
            ->orderBy('id')
            ->limit($most)
            ->select('parent_id');

        return $this->to($account, DB::query()->fromSub($ads, 'ads')->distinct()->pluck('parent_id')->all());
    }

    /** @param list<object> $rows of the nodes table, with all that stands above each */
    private function of(Account $account, array $rows): CoreAccount
    {
        usort(
            $rows,
            static fn (object $a, object $b): int => [$a->depth, $a->position] <=> [$b->depth, $b->position],
        );
        $nodes = $parents = [];
        $names = $this->names($account);
        foreach (array_chunk($rows, self::CHUNK) as $some) {
            $texts = StoredTexts::of(array_map(static fn (object $r): int => $r->id, $some));
            foreach ($some as $row) {
                $nodes[(string) $row->id] = $names->named($row, StoredTexts::node($row, $texts[$row->id] ?? []));
                $parents[(string) $row->id] = $row->parent_id === null ? null : (string) $row->parent_id;
            }
        }

        return new CoreAccount(
            $this->dialect($account),
            StoredTexts::settings($account),
            $this->hops($account),
            $nodes,
            $parents,
        );
    }

    /** What stands above the ads, nodes by their database id. */
    public function wide(Account $account): CoreAccount
    {
        $nodes = [];
        $parents = [];
        foreach ($this->each($account, ads: false) as $row => $node) {
            $nodes[(string) $row->id] = $node;
            $parents[(string) $row->id] = $row->parent_id === null ? null : (string) $row->parent_id;
        }

        return new CoreAccount(
            $this->dialect($account),
            StoredTexts::settings($account),
            $this->hops($account),
            $nodes,
            $parents,
        );
    }

    /** An account of its campaigns alone, to find whom a text names. */
    public function campaigns(Account $account): CoreAccount
    {
        $dialect = $this->dialect($account);
        $nodes = [];
        foreach (
            Node::query()
                ->where('account_id', $account->id)
                ->where('depth', $dialect->levelOf(Role::Campaign)->depth ?? 0)
                ->orderBy('position')
                ->limit(5000)
                ->toBase()
                ->get(['id', 'level', 'external_id', 'name', 'type']) as $row
        ) {
            $nodes[(string) $row->id] = new CoreNode($row->level, $row->external_id, $row->name, $row->type);
        }

        return new CoreAccount(
            $dialect,
            StoredTexts::settings($account),
            [],
            $nodes,
            array_fill_keys(array_keys($nodes), null),
        );
    }

    /**
     * The account's ads, or all that stands above them, in chunks.
     *
     * @return \Generator<object, CoreNode> row of the nodes table → the same for the core
     */
    public function each(Account $account, bool $ads, Between $some = new Between()): \Generator
    {
        $deepest = count($this->dialect($account)->levels) - 1;
        $names = $this->names($account);
        foreach ($ads ? [$deepest] : range(0, $deepest - 1) as $depth) {
            yield from $this->level($account, $depth, $names, $some);
        }
    }

    /**
     * Along the index: left to itself the server reads a level from its beginning for each chunk.
     *
     * @return \Generator<object, CoreNode>
     */
    private function level(Account $account, int $depth, NamedNodes $names, Between $some): \Generator
    {
        $last = $some->above;
        do {
            $rows = Node::query()
                ->forceIndex('nodes_account_id_depth_index')
                ->where(['account_id' => $account->id, 'depth' => $depth])
                ->where('id', '>', $last)
                ->where('id', '<=', $some->upTo)
                ->toBase()
                ->orderBy('id')
                ->limit(self::CHUNK)
                ->get();
            $texts = StoredTexts::of($rows->pluck('id')->all());
            foreach ($rows as $row) {
                yield $row => $names->named($row, StoredTexts::node($row, $texts[$row->id] ?? []));
            }
            $last = $rows->last()->id ?? 0;
        } while ($rows->count() === self::CHUNK);
    }
}
