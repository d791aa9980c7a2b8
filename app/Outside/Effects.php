<?php

namespace App\Outside;

use App\Accounts\Branches;
use App\Accounts\StoredTexts;
use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Node;
use App\Models\OutsideChange;
use App\Support\Bulk;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Account\Node as CoreNode;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\State;
use Vestigon\Core\Trace\Settings;

/**
 * What changes from outside do to a proof: which of them breaks it, and which mends it.
 *
 * Ads whose proof turns out otherwise than before are counted by what changed on their way up. Of each such lot one ad
 * is proven with one of the changes undone at a time: those that make the difference are its cause; if none does alone,
 * all of them are.
 */
final class Effects
{
    private const MOST = 50_000;

    /** @var array<int, list<int>> ids of changes by what stands above the ads */
    private array $above = [];

    /** @var array<string, array{changes: list<int>, breaks: bool, ads: int, sample: int}> */
    private array $lots = [];

    /**
     * @param array<int, OutsideChange> $changes not judged yet, by id
     * @param array<int, list<int>> $at ids of changes by node
     * @param array<int, int|null> $parents by node, ads left out
     */
    private function __construct(
        private readonly Account $account,
        private readonly array $changes,
        private readonly array $at,
        private readonly array $parents,
    ) {}

    /** Null: no change of the account waits to be judged. */
    public static function waiting(Account $account): ?self
    {
        $changes = OutsideChange::query()
            ->where(['account_id' => $account->id, 'judged' => false])
            ->orderBy('id')
            ->limit(self::MOST)
            ->get()
            ->keyBy('id')
            ->all();
        if ($changes === []) {
            return null;
        }
        $at = [];
        foreach ($changes as $id => $change) {
            $at[$change->node_id][] = $id;
        }

        return new self(
            $account,
            $changes,
            $at,
            Node::query()
                ->where(['account_id' => $account->id, 'is_ad' => false])
                ->toBase()
                ->pluck('parent_id', 'id')
                ->all(),
        );
    }

    /** An ad whose proof is another than before. */
    public function ad(int $ad, ?int $parent, ?string $was, ?string $is): void
    {
        $proven = State::Proven->value;
        $changes = [...($this->at[$ad] ?? []), ...$this->above($parent)];
        if ($changes === [] || ($was === $proven) === ($is === $proven) && $was !== null) {
            return;
        }
        if ($was === null && $is === $proven) {
            return; // it is new, and as it should be
        }
        $breaks = $is !== $proven;
        $lot = ($breaks ? 'breaks ' : 'mends ').implode(' ', $changes);
        $this->lots[$lot] ??= ['changes' => $changes, 'breaks' => $breaks, 'ads' => 0, 'sample' => $ad];
        $this->lots[$lot]['ads']++;
    }

    /** @return array<string, array{changes: list<int>, breaks: bool, ads: int, sample: int}> what was counted so far */
    public function turned(): array
    {
        return $this->lots;
    }

    /**
     * Adds what was counted of other ads. What has changed since this began to wait is judged by the next proof.
     *
     * @param array<string, array{changes: list<int>, breaks: bool, ads: int, sample: int}> $turned
     */
    public function take(array $turned): void
    {
        foreach ($turned as $lot => $of) {
            $of['changes'] = array_values(array_intersect($of['changes'], array_keys($this->changes)));
            if ($of['changes'] !== []) {
                $this->lots[$lot] ??= ['ads' => 0] + $of;
                $this->lots[$lot]['ads'] += $of['ads'];
            }
        }
    }

    /** Keeps what was found; all of them are judged then. */
    public function keep(?Plan $plan): void
    {
        $breaks = $mends = [];
        foreach ($plan === null ? [] : $this->lots as $lot) {
            foreach ($this->causes($lot, $plan) as $id) {
                if ($lot['breaks']) {
                    $breaks[$id] = ($breaks[$id] ?? 0) + $lot['ads'];
                } else {
                    $mends[$id] = ($mends[$id] ?? 0) + $lot['ads'];
                }
            }
        }
        $rows = [];
        foreach ($this->changes as $id => $change) {
            $rows[] = [
                'id' => $id,
                'judged' => 1,
                // what has been mended again is not broken any more, and the other way round
                'breaks' => max(0, $change->breaks + ($breaks[$id] ?? 0) - ($mends[$id] ?? 0)),
                'mends' => max(0, $change->mends + ($mends[$id] ?? 0) - ($breaks[$id] ?? 0)),
            ];
        }
        $types = ['judged' => 'tinyint', 'breaks' => 'int unsigned', 'mends' => 'int unsigned'];
        Bulk::update('outside_changes', $types, $rows);
    }

    /** @return list<int> */
    private function above(?int $parent): array
    {
        if ($parent === null) {
            return [];
        }

        return $this->above[$parent] ??= [
            ...($this->at[$parent] ?? []),
            ...$this->above($this->parents[$parent] ?? null),
        ];
    }

    /**
     * @param array{changes: list<int>, breaks: bool, ads: int, sample: int} $lot
     * @return list<int>
     */
    private function causes(array $lot, Plan $plan): array
    {
        if (count($lot['changes']) === 1) {
            return $lot['changes'];
        }
        $branch = Branches::of($this->account, $lot['sample']);
        $ids = $branch->ids($lot['sample']);
        $path = $branch->path($lot['sample']);
        $settings = StoredTexts::settings($this->account);
        $causes = [];
        foreach ($lot['changes'] as $id) {
            $change = $this->changes[$id];
            $nodes = $path->nodes;
            $depth = (int) array_search($change->node_id, $ids, true);
            $nodes[$depth] = self::undone($nodes[$depth], $change);
            $isProven = $this->isProven(new Path($path->dialect, $nodes), self::switched($settings, $change), $plan);
            if ($isProven === $lot['breaks']) {
                $causes[] = $id;
            }
        }

        return $causes === [] ? $lot['changes'] : $causes;
    }

    private function isProven(Path $ad, Settings $settings, Plan $plan): bool
    {
        $account = new CoreAccount($ad->dialect, $settings, Trees::hops($this->account), [], []);

        return Prover::for($account, $plan)->verdict($ad)->state === State::Proven;
    }

    private static function undone(CoreNode $node, OutsideChange $change): CoreNode
    {
        $slot = SlotKind::tryFrom($change->kind);

        return match (true) {
            $slot !== null => $node->withSlot($slot, $change->before),
            $change->kind === 'custom' => $node->withCustom($change->name, $change->before),
            in_array($change->kind, ['name', 'type'], true) => new CoreNode(
                $node->level,
                $node->id,
                $change->kind === 'name' ? (string) $change->before : $node->name,
                $change->kind === 'type' ? $change->before : $node->type,
                $node->slots,
                $node->custom,
                $node->attributes,
                $node->publishedName,
            ),
            default => $node,
        };
    }

    private static function switched(Settings $settings, OutsideChange $change): Settings
    {
        return $change->kind === 'setting'
            ? $settings->with(Setting::from($change->name), $change->before)
            : $settings;
    }
}
