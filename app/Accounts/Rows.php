<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Routes;

/** Pages of the account table: each row with what it says, and each ad with what it sends. */
final readonly class Rows
{
    public function __construct(private Account $account, private ?Plan $plan) {}

    /** @return array{rows: list<array<string, mixed>>, total: int, keys: list<string>} */
    public function page(
        ?int $parent,
        string $words,
        ?string $state,
        int $offset,
        int $limit,
        ?int $under = null,
    ): array {
        $gone = $state === 'gone' || ($parent !== null && Node::onlyTrashed()->whereKey($parent)->exists());
        $query = ($gone ? Node::onlyTrashed() : Node::query())->where('account_id', $this->account->id);
        if ($words === '' && $state === null) {
            $parent ??= (clone $query)->whereNull('parent_id')->value('id');
            $query->where('parent_id', $parent)->orderBy('position');
        } else {
            if ($words !== '') {
                self::named($query, $words);
            }
            if ($under !== null) {
                $query->whereIntegerInRaw('parent_id', Trees::below($this->account, [$under]));
            }
            // only ads have a state, and all ads stand on one level
            in_array($state, [null, 'gone'], true)
                ? $query->orderBy('depth')->orderBy('position')
                : $query->where('state', $state)->orderBy('position');
        }
        $total = (clone $query)->count();

        return [
            'rows' => $this->rows($query->offset($offset)->limit($limit)->toBase()->get()),
            'total' => $total,
            'keys' => $this->plan?->keys() ?? [],
        ];
    }

    /**
     * Words that MariaDB's full-text index leaves out (InnoDB's default stopwords, of three letters and more): asking
     * for them finds nothing.
     */
    private const NOT_INDEXED = [
        'about',
        'are',
        'com',
        'for',
        'from',
        'how',
        'that',
        'the',
        'this',
        'was',
        'what',
        'when',
        'where',
        'who',
        'will',
        'with',
        'und',
        'www',
    ];

    /** @param Builder<Node> $query */
    public static function named(Builder $query, string $words): void
    {
        $terms = array_filter(
            preg_split('/[^\p{L}\p{M}\p{N}]+/u', $words) ?: [],
            static fn (string $w): bool => mb_strlen($w) > 2
                && ! in_array(mb_strtolower($w), self::NOT_INDEXED, true),
        );
        $query->where(static function (Builder $q) use ($words, $terms): void {
            foreach (array_unique([$words, mb_strtoupper($words), mb_strtolower($words)]) as $typed) {
                $q->orWhere('external_id', 'like', addcslashes($typed, '%_\\').'%');
            }
            if ($terms !== []) {
                $q->orWhereFullText(
                    'name',
                    implode(' ', array_map(static fn (string $t): string => "+{$t}*", $terms)),
                    [
                        'mode' => 'boolean',
                    ],
                );
            } else {
                $q->orWhere('name', 'like', addcslashes($words, '%_\\').'%');
            }
        });
    }

    /**
     * @param Collection<int, object> $nodes rows of the nodes table
     * @return list<array<string, mixed>>
     */
    private function rows(Collection $nodes): array
    {
        $branch = Trees::branchOf($this->account, $nodes);
        $routes = new Routes(
            Trees::settings($this->account),
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
                    'ribbon' => $trace === null ? [] : Show::ribbon($trace),
                    'arrival' => (object) ($trace === null ? [] : Show::arrived($trace)),
                ];
            })
            ->all();
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
