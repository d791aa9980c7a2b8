<?php

namespace App\Connectors;

use App\Intakes\Fate;
use App\Intakes\KnownElements;
use App\Intakes\Stage;
use App\Models\Account;
use App\Models\Connection;
use App\Models\Intake;
use App\Models\Node;
use App\Models\Text;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Builder as QueryBuilder;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Sheet\Element;
use Vestigon\Core\Sheet\Serving;
use Vestigon\Core\Sheet\Step;

/**
 * An account that people bring as sheets. What its platform holds is what the last sheets said, with what has been
 * written since; it can't be asked anything.
 */
final readonly class StagedConnector implements Connector
{
    private const CHUNK = 500;

    /** What is as it was need not be taken in again, once it is noted that a sheet has said so. */
    private const TAKEN = [Fate::New->value, Fate::Changed->value];

    /**
     * @param Intake|null $intake what is brought now; null: nothing is
     * @param Dialect|null $dialect of what is brought
     */
    public function __construct(private ?Intake $intake, private ?Dialect $dialect = null) {}

    public function writesNow(): bool
    {
        return false;
    }

    public function clicksNow(): bool
    {
        return false;
    }

    public function accounts(Connection $connection): array
    {
        if ($this->intake === null) {
            return [];
        }
        $staged = DB::table('staged')
            ->where('intake_id', $this->intake->id)
            ->where('depth', '>', 0)
            ->where(self::isTaken(...));

        return [
            new RemoteAccount(
                $this->intake->number,
                $this->intake->name,
                $staged->count() + 1,
                fn (Builder $nodes): Builder => $nodes
                    ->whereIn('level', array_keys(array_filter($this->intake->whole ?? [])))
                    ->whereRaw(Stage::MISSING, [$this->intake->id]),
            ),
        ];
    }

    public function nodes(Connection $connection, string $account, string $level): iterable
    {
        $intake = $this->intake ?? throw new \LogicException('nothing is brought');
        $known = new KnownElements($intake->account()->first());
        $depth = $this->dialect?->level($level)->depth ?? 0;
        $from = -1;
        do {
            $rows = DB::table('staged')
                ->where(['intake_id' => $intake->id, 'depth' => $depth])
                ->where('position', '>', $from)
                ->where(
                    static fn ($q) => $q
                        ->where(self::isTaken(...))
                        ->orWhere('fate', Fate::Gone->value)
                        ->orWhere('depth', 0), // the account itself always comes
                )
                ->orderBy('position')
                ->limit(self::CHUNK)
                ->get(['position', 'said']);
            $elements = $rows->map(static fn (object $r): Element => Element::of(json_decode($r->said, true)))->all();
            $was = $known->of(array_map(static fn (Element $e): Step => $e->step, $elements));
            foreach ($elements as $element) {
                yield $this->remote($element, $was[$element->step->key()] ?? null);
            }
            $from = $rows->last()->position ?? $from;
        } while (count($rows) === self::CHUNK);
    }

    public function read(Connection $connection, string $account, array $ids): array
    {
        $nodes = Node::query()
            ->whereIn('external_id', $ids)
            ->where(
                'account_id',
                Account::query()
                    ->where(['connection_id' => $connection->id, 'external_id' => $account])
                    ->value('id'),
            )
            ->get();
        $texts = Text::query()->ofNodes($nodes->modelKeys())->whereNull('until')->get()->groupBy(
            'node_id',
        );
        $said = static fn (Node $n, array $kinds): array => ($texts[$n->id] ?? collect())
            ->whereIn('kind', $kinds)
            ->mapWithKeys(static fn (Text $t): array => [$t->name === '' ? $t->kind : $t->name => $t->text])
            ->all();

        return $nodes
            ->map(
                static fn (Node $n): RemoteNode => new RemoteNode(
                    $n->external_id,
                    null,
                    $n->level,
                    $n->name,
                    $n->type,
                    $n->version,
                    $said($n, ['template', 'suffix', 'landing']),
                    $said($n, ['custom']),
                    [],
                    standing: $n->standing,
                    settings: $said($n, ['setting']),
                ),
            )
            ->all();
    }

    public function write(Connection $connection, string $account, string $key, array $updates): array
    {
        throw new \LogicException('what goes out in a sheet is not sent');
    }

    public function batchSize(): int
    {
        return self::CHUNK;
    }

    public function click(Connection $connection, string $account, string $ad, array $context): RemoteClick
    {
        throw PlatformTrouble::notAsked($connection->title);
    }

    public function clicks(Connection $connection, string $account, array $clickIds): array
    {
        return [];
    }

    public function figures(Connection $connection, string $account, string $from, string $to): iterable
    {
        return [];
    }

    private static function isTaken(QueryBuilder $staged): void
    {
        $staged->whereIn('fate', self::TAKEN)->orWhere('unsaid', true);
    }

    /** @param array{element: Element, node: object}|null $was */
    private function remote(Element $said, ?array $was): RemoteNode
    {
        $now = $was === null ? $said->settled() : $was['element']->overlaid($said->settled());
        $facts = $now->facts;
        $some = static fn (array $texts): array => array_filter($texts, static fn (string $t): bool => $t !== '');
        $above = $now->parent === null ? [null, $this->intake?->number] : explode("\x1F", $now->parent[1], 2);

        return new RemoteNode(
            $now->step->id,
            $now->step->depth === 0 ? null : $above[1],
            $now->step->level,
            $now->name() === '' && $now->step->depth === 0 ? (string) $this->intake?->name : $now->name(),
            $now->type(),
            $was['node']->version ?? 0,
            $some($facts->slots ?? []),
            $some($facts->custom ?? []),
            array_map(static fn (array $k): array => ['text' => $k[0], 'match' => $k[1]], $now->keywords),
            $facts?->publishedName,
            $some($facts->attributes ?? []),
            match (true) {
                $facts?->serving === Serving::Gone => RemoteNode::GONE,
                $facts?->serving === Serving::Paused => 'paused',
                $facts?->serving === Serving::On => 'live',
                default => $was['node']->standing ?? 'live',
            },
            $facts->settings ?? [],
            $above[0],
            $said->settled()->digest(),
        );
    }
}
