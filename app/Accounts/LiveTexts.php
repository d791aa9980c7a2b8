<?php

namespace App\Accounts;

use App\Connectors\RemoteNode;
use App\Models\Node;
use App\Models\Text;
use App\Support\Bulk;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

/**
 * Keeps what is live, and since when, equal to what a platform says.
 *
 * The elements' rows are locked while it looks and writes: two workers at one element take turns.
 */
final class LiveTexts
{
    /** To the millisecond: what was written while a platform answered is told apart. */
    public const PRECISE = 'Y-m-d H:i:s.v';

    /**
     * @param array<int, RemoteNode> $remotes by node id
     * @param CarbonImmutable $asked when the platform was asked: a place that has been written since is left as it is
     * @return list<array{int, string, string, string|null, string|null}> what was otherwise: node, kind, name, before,
     *     after
     */
    public static function sync(array $remotes, CarbonImmutable $asked): array
    {
        return self::bring(array_keys($remotes), self::said($remotes), allOf: true, asked: $asked);
    }

    /**
     * The same for elements that are new, and have no texts yet.
     *
     * @param array<int, RemoteNode> $remotes by node id
     */
    public static function begin(array $remotes): void
    {
        self::insert(self::said($remotes), CarbonImmutable::now()->format(self::PRECISE));
    }

    /**
     * @param array<int, RemoteNode> $remotes by node id
     * @return list<array{int, string, string, string}> node, kind, name, text
     */
    private static function said(array $remotes): array
    {
        $wanted = [];
        foreach ($remotes as $node => $remote) {
            foreach ($remote->slots as $kind => $text) {
                $wanted[] = [$node, (string) $kind, '', $text];
            }
            foreach ($remote->custom as $name => $text) {
                $wanted[] = [$node, 'custom', (string) $name, $text];
            }
            foreach ($remote->settings as $name => $text) {
                $wanted[] = [$node, 'setting', $name, $text];
            }
        }

        return $wanted;
    }

    /** Sets or clears one text, or gives a name. */
    public static function set(int $node, string $kind, string $name, ?string $text): void
    {
        self::setAll([[$node, $kind, $name, $text]]);
    }

    /**
     * Sets or clears texts, each place once; of the kind `name`: names elements.
     *
     * @param list<array{int, string, string, string|null}> $texts node, kind, name of a custom parameter or setting,
     *     text
     */
    public static function setAll(array $texts): void
    {
        $names = array_filter($texts, static fn (array $t): bool => $t[1] === 'name');
        Renaming::of(array_map(strval(...), array_column($names, 3, 0)));
        $texts = array_values(array_diff_key($texts, $names));
        self::bring(array_values(array_unique(array_column($texts, 0))), $texts, allOf: false);
    }

    /**
     * @param list<int> $nodes
     * @param list<array{int, string, string, string|null}> $texts
     * @param bool $allOf are these all texts of the nodes? Then what is not among them ends
     * @return list<array{int, string, string, string|null, string|null}> what was otherwise: node, kind, name, before,
     *     after
     */
    private static function bring(array $nodes, array $texts, bool $allOf, ?CarbonImmutable $asked = null): array
    {
        return DB::transaction(static function () use ($nodes, $texts, $allOf, $asked): array {
            Node::withTrashed()
                ->whereIntegerInRaw('id', $nodes)
                ->orderBy('id')
                ->toBase()
                ->lockForUpdate()
                ->get('id');
            $now = CarbonImmutable::now()->format(self::PRECISE);
            $wanted = [];
            foreach ($texts as [$node, $kind, $name, $text]) {
                $wanted["{$node} {$kind} {$name}"] = [$node, $kind, $name, $text];
            }
            $ended = $moved = [];
            $unsaid = $allOf ? [] : $nodes; // they are no longer as sheets said
            foreach (self::places($nodes, $asked) as $text) {
                $place = "{$text->node_id} {$text->kind} {$text->name}";
                $isNewer = $asked !== null && max($text->since, $text->until) > $asked->format(self::PRECISE);
                if ($isNewer || ($text->until === null && ($wanted[$place][3] ?? null) === $text->text)) {
                    unset($wanted[$place]); // it is so already, or has become otherwise since
                    if ($isNewer) {
                        $unsaid[] = $text->node_id;
                    }
                } elseif ($text->until === null && ($allOf || isset($wanted[$place]))) {
                    $ended[] = $text->id;
                    $moved[$place] = [$text->node_id, $text->kind, $text->name, $text->text, null];
                }
            }
            foreach (array_chunk($ended, 1000) as $ids) {
                Text::query()
                    ->whereIntegerInRaw('id', $ids)
                    ->update(['until' => $now]);
            }
            if ($unsaid !== []) {
                Node::withTrashed()->whereIntegerInRaw('id', $unsaid)->whereNotNull('said')->update(['said' => null]);
            }
            $set = array_filter($wanted, static fn (array $t): bool => $t[3] !== null);
            self::insert(array_values($set), $now);
            foreach ($set as $place => [$node, $kind, $name, $text]) {
                $moved[$place] = [$node, $kind, $name, $moved[$place][3] ?? null, $text];
            }

            return array_values($moved);
        }, 5);
    }

    /** @param list<array{int, string, string, string|null}> $texts node, kind, name, text */
    private static function insert(array $texts, string $now): void
    {
        Bulk::insert('texts', array_map(
            static fn (array $t): array => [
                'node_id' => $t[0],
                'kind' => $t[1],
                'name' => $t[2],
                'text' => $t[3],
                'since' => $now,
            ],
            $texts,
        ));
    }

    /**
     * @param list<int> $nodes
     * @return iterable<object> their live texts, and those that have ended since the platform was asked
     */
    private static function places(array $nodes, ?CarbonImmutable $asked): iterable
    {
        return Text::query()
            ->ofNodes($nodes)
            ->where(
                static fn ($q) => $q
                    ->whereNull('until')
                    ->when(
                        $asked !== null,
                        static fn ($w) => $w->orWhere('until', '>', $asked?->format(self::PRECISE)),
                    ),
            )
            ->toBase()
            ->get(['id', 'node_id', 'kind', 'name', 'text', 'since', 'until']);
    }
}
