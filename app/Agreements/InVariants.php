<?php

namespace App\Agreements;

use App\Accounts\Branches;
use App\Accounts\Trees;
use App\Models\Account;
use App\Models\Client;
use App\Models\Node;
use Vestigon\Core\Plan\Fields;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\Variant;

/** For how many of a client's ads each variant of a plan counts. */
final readonly class InVariants
{
    /** Elements right above ads that are looked at, of each account. */
    private const MOST = 2000;

    private const CHUNK = 500;

    /**
     * @param array<string, int> $ads by variant; under '' those of the plan itself
     * @param bool $whole false: an account has more elements than were looked at
     */
    private function __construct(public array $ads, public bool $whole) {}

    public static function of(Client $client, Plan $plan): self
    {
        $all = (int) Node::query()
            ->whereIn('account_id', $client->accounts->modelKeys())
            ->whereNull('parent_id')
            ->sum('ads');
        $ads = ['' => $all];
        $whole = true;
        foreach ($plan->variants as $variant) {
            $ads[$variant->id] = 0;
            foreach ($client->accounts as $account) {
                $rows = self::each($account, $plan, $variant, null);
                foreach ($rows as $row) {
                    $ads[$variant->id] += $row->ads;
                    $ads[''] -= $row->ads;
                }
                $whole = $rows->getReturn() && $whole;
            }
        }

        return new self($ads, $whole);
    }

    /**
     * What stands right above some ads of campaigns of a type for which a variant counts, or the plan itself does.
     *
     * @return int|null its number in the database; null: there is none among those that were looked at
     */
    public static function first(Account $account, Plan $plan, string $type, ?Variant $variant): ?int
    {
        foreach (self::each($account, $plan, $variant, $type) as $row) {
            if ($row->ads > 0) {
                return $row->id;
            }
        }

        return null;
    }

    /**
     * @return \Generator<int, object, mixed, bool> rows of the nodes table, right above ads, for which the variant
     *     counts; at the end, whether all were looked at
     */
    private static function each(Account $account, Plan $plan, ?Variant $variant, ?string $type): \Generator
    {
        $dialect = Trees::dialect($account);
        if ($variant?->platforms !== null && ! in_array($dialect->id, $variant->platforms, true)) {
            return true;
        }
        $below = self::below($account, $variant, $type);
        for ($from = 0; $from < self::MOST; $from += self::CHUNK) {
            $rows = Node::query()
                ->where(['account_id' => $account->id, 'depth' => count($dialect->levels) - 2])
                ->when($below !== null, static fn ($q) => $q->whereIntegerInRaw('id', (array) $below))
                ->orderBy('id')
                ->offset($from)
                ->limit(self::CHUNK)
                ->toBase()
                ->get();
            $branch = Branches::ofRows($account, $rows);
            foreach ($rows as $row) {
                $path = $branch->path($row->id);
                if (
                    $plan->variantFor($path)?->id === $variant?->id
                    && ($type === null || $path->campaignType() === $type)
                ) {
                    yield $row;
                }
            }
            if ($rows->count() < self::CHUNK) {
                return true;
            }
        }

        return false;
    }

    /**
     * Below which elements it can count: those that it names by their numbers, or campaigns of the type.
     *
     * @return list<int>|null null: anywhere
     */
    private static function below(Account $account, ?Variant $variant, ?string $type): ?array
    {
        $nodes = Node::query()->where('account_id', $account->id);
        foreach ($variant->where ?? [] as $field => $values) {
            $owner = Fields::owner($field);
            $level = $owner === null ? null : Trees::dialect($account)->levelOf($owner);
            if ($level !== null && str_ends_with($field, '.id')) {
                return Branches::below(
                    $account,
                    $nodes->where('depth', $level->depth)->whereIn('external_id', $values)->pluck('id')->all(),
                );
            }
        }

        return $type === null
            ? null
            : Branches::below(
                $account,
                $nodes->where('type', $type)->orderBy('position')->limit(self::CHUNK)->pluck('id')->all(),
            );
    }
}
