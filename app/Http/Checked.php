<?php

namespace App\Http;

use Illuminate\Http\Request;

/** A request's values, checked from the outside in: how long a list is before any rule looks at its elements. */
final class Checked
{
    /**
     * @param array<string, mixed> $rules
     * @param array<string, string> $messages
     * @return array<string, mixed>
     */
    public static function input(Request $request, array $rules, array $messages = []): array
    {
        $depth = static fn (string $key): int => substr_count($key, '*');
        $depths = array_unique(array_map($depth, array_keys($rules)));
        sort($depths);
        $checked = [];
        foreach ($depths as $deepest) {
            $checked = $request->validate(
                array_filter(
                    $rules,
                    static fn (string $key): bool => $depth($key) <= $deepest,
                    ARRAY_FILTER_USE_KEY,
                ),
                $messages,
            );
        }

        return $checked;
    }
}
