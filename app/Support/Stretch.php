<?php

namespace App\Support;

/** A stretch of a URL as ribbons show it, of which no text of an account is known to have made it. */
final class Stretch
{
    /**
     * @param string $role as core's SegmentRole
     * @return array<string, string|null>
     */
    public static function of(string $text, string $role): array
    {
        return [
            'text' => $text,
            'role' => $role,
            'slot' => null,
            'level' => null,
            'node' => null,
            'name' => null,
            'token' => null,
            'field' => null,
        ];
    }
}
