<?php

namespace App\Ledger;

use App\Accounts\Branch;

/** What stands otherwise on an ad's path at one moment than at another. */
final class Otherwise
{
    /**
     * @return list<array{node: int, name: string, level: string, kind: string, custom: string, before: string|null,
     *     after: string|null}> kind: a slot, custom, or name
     */
    public static function of(Branch $then, Branch $now, int $ad): array
    {
        $told = [];
        $after = $now->path($ad)->nodes;
        foreach ($then->path($ad)->nodes as $i => $node) {
            $was = ['name' => ['' => $node->name], 'custom' => $node->custom] + self::slots($node->slots);
            $is = ['name' => ['' => $after[$i]->name], 'custom' => $after[$i]->custom] + self::slots($after[$i]->slots);
            foreach ($was + $is as $kind => $_) {
                foreach (($was[$kind] ?? []) + ($is[$kind] ?? []) as $name => $_) {
                    [$one, $other] = [$was[$kind][$name] ?? null, $is[$kind][$name] ?? null];
                    if ($one !== $other) {
                        $told[] = [
                            'node' => $then->ids($ad)[$i],
                            'name' => $after[$i]->name,
                            'level' => $node->level,
                            'kind' => $kind,
                            'custom' => (string) $name,
                            'before' => $one,
                            'after' => $other,
                        ];
                    }
                }
            }
        }

        return $told;
    }

    /**
     * @param array<string, string> $slots
     * @return array<string, array{'': string}>
     */
    private static function slots(array $slots): array
    {
        return array_map(static fn (string $text): array => ['' => $text], $slots);
    }
}
