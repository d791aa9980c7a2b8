<?php

namespace App\Accounts;

use App\Agreements\Agreements;
use App\Models\Account;
use App\Models\Node;
use Illuminate\Database\Eloquent\Builder;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Naming\Patterns;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Routes;

/**
 * Pages of the account table: each row with what it says, and each ad with what it sends.
 *
 * @phpstan-type Page array{
 *     rows: list<array<string, mixed>>,
 *     total: int,
 *     more: bool,
 *     keys: list<string>,
 *     parts: list<string>,
 * } more: there are more than the total says; none of those is on any page; parts: that names have
 */
final readonly class Rows
{
    /** Of what is found by words so many can be seen; who wants more of them says more words. */
    private const MOST_FOUND = 1000;

    public function __construct(private Account $account, private ?Plan $plan) {}

    /**
     * One page: of what stands under an element, or of what words and a state find.
     *
     * @param int|null $under found below this element only
     * @return Page
     */
    public function page(
        ?int $parent,
        string $words,
        ?string $state,
        int $offset,
        int $limit,
        ?int $under = null,
    ): array {
        $more = false;
        if ($words !== '') {
            [$ids, $more] = (new Finder($this->account->id, self::MOST_FOUND))->find(
                $words,
                fn (Builder $q): Builder => $this->narrowed($state === 'gone' ? $q->onlyTrashed() : $q, $state, $under),
            );
            $total = count($ids);
            // what is found may stand on any level, the widest first
            $query = Node::withTrashed()
                ->whereIntegerInRaw('id', $ids)
                ->orderBy('depth')
                ->orderBy('position');
        } elseif ($state !== null) {
            $query = $this->narrowed(
                $state === 'gone' ? Node::onlyTrashed() : Node::query(),
                $state,
                $under,
            )->where('account_id', $this->account->id);
            $total = $state === 'gone' ? (clone $query)->count() : $this->counted($state, $under);
            // only ads have a state, and all ads stand on one level
            $state === 'gone'
                ? $query->orderBy('depth')->orderBy('position')
                : $query->orderBy('position');
        } else {
            $gone = $parent !== null && Node::onlyTrashed()->whereKey($parent)->exists();
            $query = ($gone ? Node::onlyTrashed() : Node::query())->where('account_id', $this->account->id);
            $parent ??= (clone $query)->whereNull('parent_id')->value('id');
            $query->where('parent_id', $parent)->orderBy('position');
            $total = (clone $query)->count();
        }

        return [
            'rows' => $this->rows($query->offset($offset)->limit($limit)->toBase()->pluck('id')->all()),
            'total' => $total,
            'more' => $more,
            'keys' => $this->plan?->keys() ?? [],
            'parts' => $this->parts(),
        ];
    }

    /** @return list<string> the parts that names on this platform have, by any pattern */
    private function parts(): array
    {
        $dialect = Trees::dialect($this->account);
        $parts = [];
        foreach (app(Agreements::class)->names($this->account->client_id)->all as $pattern) {
            if ($pattern->for->onPlatform($dialect)) {
                foreach ($pattern->parts as $part) {
                    $parts[] = $part->name;
                }
            }
        }

        return array_values(array_unique($parts));
    }

    /**
     * @param Builder<Node> $query
     * @return Builder<Node>
     */
    private function narrowed(Builder $query, ?string $state, ?int $under): Builder
    {
        if ($under !== null) {
            $query->whereIntegerInRaw('nodes.parent_id', Branches::below($this->account, [$under]));
        }

        return in_array($state, [null, 'gone'], true) ? $query : $query->where('nodes.state', $state);
    }

    /** How many ads are of a state, as the last proof has counted them. */
    private function counted(string $state, ?int $under): int
    {
        return (int) Node::query()
            ->where('account_id', $this->account->id)
            ->where(static fn ($q) => $under === null ? $q->whereNull('parent_id') : $q->whereKey($under))
            ->value($state);
    }

    /**
     * @param list<int> $ids
     * @return list<array<string, mixed>> in the order of the ids
     */
    private function rows(array $ids): array
    {
        $order = array_flip($ids);
        $nodes = Node::withTrashed()
            ->whereIntegerInRaw('id', $ids)
            ->toBase()
            ->get()
            ->sortBy(static fn (object $n): int => $order[$n->id])
            ->values();
        $branch = Branches::ofRows($this->account, $nodes);
        $routes = new Routes(
            StoredTexts::settings($this->account),
            Trees::hops($this->account),
            new TemplateReader(Trees::dialect($this->account)),
        );

        return $nodes
            ->map(static function (object $node) use ($branch, $routes): array {
                $path = $branch->path($node->id);
                $isAd = (bool) $node->is_ad;
                $trace = $isAd
                    ? $routes->trace($path, SampleClick::of($path, $branch->keywords($node->id)))
                    : null;

                return [
                    'id' => $node->id,
                    'parent' => $node->parent_id,
                    'level' => $node->level,
                    'role' => $path->dialect->level($node->level)?->role?->value,
                    'depth' => $node->depth,
                    'name' => $node->name,
                    'externalId' => $node->external_id,
                    'type' => $node->type,
                    'isAd' => $isAd,
                    'ads' => $node->ads,
                    'proven' => $node->proven,
                    'broken' => $node->broken,
                    'untracked' => $node->untracked,
                    'state' => $node->state,
                    'fault' => $node->fault,
                    'faultKeys' => $node->fault_keys === '' ? [] : explode(',', $node->fault_keys),
                    'where' => Show::where($path),
                    'says' => self::says($path),
                    'parts' => (object) self::partsOf($path),
                    'ribbon' => $trace === null ? [] : Show::ribbon($trace),
                    'arrival' => (object) ($trace === null ? [] : Show::arrived($trace)),
                ];
            })
            ->all();
    }

    /** @return array<string, string> the parts of its own name, if that follows its pattern */
    private static function partsOf(Path $path): array
    {
        $parts = [];
        foreach ($path->last()->attributes as $fact => $value) {
            if (str_starts_with($fact, Patterns::FACT)) {
                $parts[substr($fact, strlen(Patterns::FACT))] = $value;
            }
        }

        return $parts;
    }

    /** @return list<array{slot: string, text: string}> the node's own tracking texts */
    private static function says(Path $path): array
    {
        $says = [];
        foreach ([SlotKind::Template, SlotKind::Suffix] as $kind) {
            if (($text = $path->last()->slot($kind)) !== null) {
                $says[] = ['slot' => $kind->value, 'text' => $text];
            }
        }
        foreach ($path->last()->custom as $name => $text) {
            $says[] = ['slot' => ($path->dialect->customParameters->prefix ?? '').$name, 'text' => $text];
        }

        return $says;
    }
}
