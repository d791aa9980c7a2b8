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
        self::setAll([[$node, $kind, $name, $text]]);
    }

    /**
     * Sets or clears texts, each place once.
     *
     * @param list<array{int, string, string, string|null}> $texts node, kind, name of a custom parameter, text
     */
    public static function setAll(array $texts): void
    {
        $now = now();
        $wanted = [];
        foreach ($texts as [$node, $kind, $name, $text]) {
            $wanted["{$node} {$kind} {$name}"] = $text;
        }
        $ended = [];
        foreach (Text::query()->whereIntegerInRaw('node_id', array_column($texts, 0))->whereNull('until')->toBase()->get(['id', 'node_id', 'kind', 'name', 'text']) as $live) {
            $place = "{$live->node_id} {$live->kind} {$live->name}";
            if (array_key_exists($place, $wanted)) {
                if ($live->text === $wanted[$place]) {
                    $wanted[$place] = null; // it is so already
                } else {
                    $ended[] = $live->id;
                }
            }
        }
        Text::query()->whereIntegerInRaw('id', $ended)->update(['until' => $now]);
        $begun = array_filter(array_map(static fn (array $t): array => ['node_id' => $t[0], 'kind' => $t[1], 'name' => $t[2], 'text' => $wanted["{$t[0]} {$t[1]} {$t[2]}"], 'since' => $now], $texts), static fn (array $row): bool => $row['text'] !== null);
        foreach (array_chunk($begun, 1000) as $rows) {
            Text::query()->insert($rows);
        }
    }
}
