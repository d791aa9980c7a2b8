<?php

namespace App\Accounts;

use Vestigon\Core\Account\Path;
use Vestigon\Core\Trace\Origin;
use Vestigon\Core\Trace\Trace;

/** Traces in the form that the interface draws. */
final class Show
{
    /** @return list<array<string, mixed>> the ribbon's segments; neighbours of one origin are one */
    public static function ribbon(Trace $trace): array
    {
        $segments = [];
        $last = null;
        $n = -1;
        foreach ($trace->segments as $segment) {
            if ($segment->text === '') {
                continue;
            }
            $origin = $segment->origin;
            if ($last === $origin || $last?->equals($origin)) {
                $segments[$n]['text'] .= $segment->text;
            } else {
                $segments[++$n] = [
                    'text' => $segment->text,
                    'role' => $origin->role->value,
                    'slot' => $origin->slot?->value,
                    'level' => $origin->node?->level,
                    'node' => $origin->node?->id,
                    'name' => $origin->node?->name,
                    'token' => $origin->token,
                    'field' => $origin->field,
                ];
                $last = $origin;
            }
        }

        return $segments;
    }

    /** @return array<string, mixed>|null */
    public static function origin(?Origin $origin): ?array
    {
        return $origin === null
            ? null
            : [
                'role' => $origin->role->value,
                'slot' => $origin->slot?->value,
                'level' => $origin->node?->level,
                'node' => $origin->node?->id,
                'name' => $origin->node?->name,
                'token' => $origin->token,
                'field' => $origin->field,
            ];
    }

    /** The URL that the page is opened with: the last of the trail. */
    public static function landed(Trace $trace): string
    {
        return $trace->trail === [] ? '' : $trace->trail[count($trace->trail) - 1][0];
    }

    /** @return array<string, string> the first value of each key */
    public static function arrived(Trace $trace): array
    {
        $values = [];
        foreach ($trace->arrival as [$key, $value]) {
            $values[$key] ??= $value;
        }

        return $values;
    }

    /** Where a node stands, in one line: campaign › group. */
    public static function where(Path $path): string
    {
        return implode(' › ', array_map(static fn ($n): string => $n->name, array_slice($path->nodes, 1, -1)));
    }
}
