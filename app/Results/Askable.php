<?php

namespace App\Results;

use App\Models\Client;
use App\Watching\PlanKeys;

/** All that results of a client can be told by. */
final readonly class Askable
{
    /** What a key of the client's plans is asked for by, before its name. */
    private const KEY = 'key.';

    public function __construct(private NameParts $parts, private PlanKeys $keys) {}

    /** @return By|null null: results are not told by that */
    public function find(Client $client, string $asked): ?By
    {
        $dimension = Dimension::tryFrom($asked);
        if ($dimension !== null && $dimension !== Dimension::Key) {
            return By::of($dimension);
        }
        if (str_starts_with($asked, self::KEY)) {
            $number = $this->keys->of($client)[substr($asked, strlen(self::KEY))] ?? null;

            return $number === null ? null : By::key($number, $asked);
        }
        $of = NameParts::dimension($asked);

        return $of === null || ! in_array($asked, $this->parts->fields($client), true) ? null : By::part($of, $asked);
    }
}
