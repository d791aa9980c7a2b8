<?php

namespace App\Results;

use App\Models\Client;
use Illuminate\Support\Facades\DB;

/** The values that results are told by, each with a number of its own: rollups are added up and grouped by numbers. */
final class RollupValues
{
    private const AT_ONCE = 500;

    private const READ_AT_ONCE = 10_000;

    /** Nothing has no row. */
    public const NOTHING = 0;

    /**
     * @param list<string> $values
     * @return array<string, int> of each, and of nothing
     */
    public function numbers(Client $client, array $values): array
    {
        $values = array_map(strval(...), array_keys(array_flip($values)));
        $known = self::known($client, $values);
        $unknown = array_values(array_filter($values, static fn (string $v): bool => ! isset($known[$v])));
        foreach (array_chunk($unknown, self::AT_ONCE) as $some) {
            DB::table('rollup_values')->insertOrIgnore(
                array_map(static fn (string $v): array => ['client_id' => $client->id, 'value' => $v], $some),
            );
        }

        return $unknown === [] ? $known : $known + self::known($client, $unknown);
    }

    /**
     * @param list<int> $numbers
     * @return array<int, string> the values that have them
     */
    public static function of(array $numbers): array
    {
        $values = [];
        foreach (array_chunk(array_keys(array_flip($numbers)), self::READ_AT_ONCE) as $some) {
            $values += DB::table('rollup_values')->whereIntegerInRaw('id', $some)->pluck('value', 'id')->all();
        }

        return $values;
    }

    /**
     * @param list<string> $values
     * @return array<string, int> of those that there are, and of nothing
     */
    public static function known(Client $client, array $values): array
    {
        $known = ['' => self::NOTHING];
        foreach (array_chunk($values, self::AT_ONCE) as $some) {
            // what others have just put there is seen too
            $known += DB::table('rollup_values')
                ->where('client_id', $client->id)
                ->whereIn('value', $some)
                ->sharedLock()
                ->pluck('id', 'value')
                ->all();
        }

        return $known;
    }
}
