<?php

namespace App\Feeds;

use App\Support\Stretch;
use Vestigon\Core\Url\QueryText;

/** Links of product lists, as ribbons show them. */
final class Ribbons
{
    /** @return list<array<string, mixed>> as ribbons show them: what rules have put there, and what was there */
    public static function of(string $before, string $after): array
    {
        $was = [];
        foreach (QueryText::ofUrl($before)->pieces as $piece) {
            $was[$piece->text] = true;
        }
        $segments = [];
        foreach (QueryText::ofUrl($after)->pieces as $piece) {
            $role = isset($was[$piece->text]) ? 'landing' : 'token';
            $last = array_key_last($segments);
            if ($last !== null && $segments[$last]['role'] === $role) {
                $segments[$last]['text'] .= $piece->mark.$piece->text;

                continue;
            }
            $segments[] = Stretch::of($piece->mark.$piece->text, $role);
        }

        return $segments;
    }
}
