<?php

namespace App\Accounts;

use App\Models\Account;
use App\Models\Node;
use App\Models\Text;
use Illuminate\Database\Eloquent\Builder;
use Vestigon\Core\Account\Node as CoreNode;
use Vestigon\Core\Dialect\Setting;
use Vestigon\Core\Trace\Settings;

/** What elements say, as it is kept: now, or at a moment. */
final class StoredTexts
{
    /** @param \DateTimeInterface|null $at null: now */
    public static function settings(Account $account, ?\DateTimeInterface $at = null): Settings
    {
        $settings = new Settings();
        $switched = self::liveAt(
            Text::query()
                ->where('kind', 'setting')
                ->whereIn(
                    'node_id',
                    Node::withTrashed()
                        ->where(['account_id' => $account->id, 'depth' => 0])
                        ->select('id'),
                ),
            $at,
        );
        foreach ($switched->toBase()->pluck('text', 'name') as $name => $text) {
            $settings = $settings->with(Setting::from($name), $text);
        }

        return $settings;
    }

    /**
     * @param list<int> $nodes
     * @param \DateTimeInterface|null $at null: now
     * @return array<int, list<object>> live texts by node
     */
    public static function of(array $nodes, ?\DateTimeInterface $at = null): array
    {
        $texts = [];
        foreach (
            self::liveAt(Text::query()->ofNodes($nodes)->where('kind', '!=', 'setting'), $at)
                ->toBase()
                ->get(['node_id', 'kind', 'name', 'text']) as $text
        ) {
            $texts[$text->node_id][] = $text;
        }

        return $texts;
    }

    /**
     * @param Builder<Text> $texts
     * @return Builder<Text>
     */
    private static function liveAt(Builder $texts, ?\DateTimeInterface $at): Builder
    {
        $then = $at?->format(LiveTexts::PRECISE);

        return $then === null
            ? $texts->whereNull('until')
            : $texts
                ->where('since', '<=', $then)
                ->where(static fn ($w) => $w->whereNull('until')->orWhere('until', '>', $then));
    }

    /**
     * @param object $row of the nodes table
     * @param list<object> $texts its own
     */
    public static function node(object $row, array $texts): CoreNode
    {
        $slots = [];
        $custom = [];
        foreach ($texts as $text) {
            if ($text->kind === 'custom') {
                $custom[$text->name] = $text->text;
            } else {
                $slots[$text->kind] = $text->text;
            }
        }

        return new CoreNode(
            $row->level,
            $row->external_id,
            $row->name,
            $row->type,
            $slots,
            $custom,
            $row->facts === null ? [] : json_decode($row->facts, true),
            $row->published_name,
        );
    }
}
