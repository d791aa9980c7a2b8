<?php

namespace App\Agreements;

use App\Models\Client;
use Illuminate\Support\LazyCollection;

/** The report lines of the last days: what arrived with the same words, and how often. */
final class Lines
{
    public const DAYS = 90;

    /** A parameter's key → the column that its value stands in. */
    public const COLUMNS = [
        'utm_source' => 'source',
        'utm_medium' => 'medium',
        'utm_campaign' => 'campaign',
        'utm_term' => 'term',
        'utm_content' => 'content',
    ];

    /** What channel rules ask for → the column that tells it: by a click ID alone or the referrer too. */
    private const TOLD = ['utm_source' => 'told_source', 'utm_medium' => 'told_medium', 'family' => 'family'];

    /**
     * @param list<string> $keys that tell lines apart; of others nothing is kept by line
     * @return LazyCollection<int, array{values: array<string, string>, arrivals: int}>
     */
    public static function of(Client $client, array $keys): LazyCollection
    {
        $columns = array_intersect_key(self::TOLD + self::COLUMNS, array_flip($keys));

        return $client
            ->arrivals()
            ->where('at', '>', now()->subDays(self::DAYS))
            ->select(array_values($columns))
            ->selectRaw('count(*) arrivals')
            ->groupBy(...array_values($columns))
            ->toBase()
            ->cursor()
            ->map(
                static fn (object $row): array => [
                    'values' => array_map(static fn (string $column): string => $row->{$column}, $columns),
                    'arrivals' => (int) $row->arrivals,
                ],
            );
    }
}
