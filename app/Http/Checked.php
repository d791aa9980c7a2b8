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
        // what a rule has asked the database once need not be asked again
        $plain = static fn (mixed $rule): mixed => is_array($rule)
            ? array_values(array_filter($rule, is_string(...)))
            : $rule;
        foreach ($depths as $deepest) {
            $some = [];
            foreach ($rules as $key => $rule) {
                if ($depth($key) <= $deepest) {
                    $some[$key] = $depth($key) < $deepest ? $plain($rule) : $rule;
                }
            }
            $checked = $request->validate($some, $messages);
        }

        return $checked;
    }
}
