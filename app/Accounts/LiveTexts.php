<?php

namespace App\Accounts;

use App\Connectors\RemoteNode;
use App\Models\Text;

/** Keeps what is live, and since when, equal to what a platform says. */
final class LiveTexts
{
    /** @param array<int, RemoteNode> $remotes by node id */
    public static function sync(array $remotes): void
    {
        $now = now();
        $live = [];
        foreach (Text::query()->whereIn('node_id', array_keys($remotes))->whereNull('until')->get(['id', 'node_id', 'kind', 'name', 'text']) as $text) {
            $live[$text->node_id]["{$text->kind} {$text->name}"] = $text;
        }
        $ended = [];
        $begun = [];
        foreach ($remotes as $node => $remote) {
            $wanted = [];
            foreach ($remote->slots as $kind => $text) {
                $wanted["{$kind} "] = [$kind, '', $text];
            }
            foreach ($remote->custom as $name => $text) {
                $wanted["custom {$name}"] = ['custom', (string) $name, $text];
            }
            foreach ($live[$node] ?? [] as $key => $text) {
                if (($wanted[$key][2] ?? null) === $text->text) {
                    unset($wanted[$key]);
                } else {
                    $ended[] = $text->id;
                }
            }
            foreach ($wanted as [$kind, $name, $text]) {
                $begun[] = ['node_id' => $node, 'kind' => $kind, 'name' => $name, 'text' => $text, 'since' => $now];
            }
        }
        Text::query()->whereIn('id', $ended)->update(['until' => $now]);
        foreach (array_chunk($begun, 1000) as $rows) {
            Text::query()->insert($rows);
        }
    }

    /** Sets or clears one text. */
    public static function set(int $node, string $kind, string $name, ?string $text): void
    {
        $now = now();
        Text::query()->where(['node_id' => $node, 'kind' => $kind, 'name' => $name])->whereNull('until')->update(['until' => $now]);
        if ($text !== null) {
            Text::query()->insert(['node_id' => $node, 'kind' => $kind, 'name' => $name, 'text' => $text, 'since' => $now]);
        }
    }
}
