<?php

namespace App\Results;

use App\Models\Client;
use Illuminate\Support\Facades\DB;

/** What campaigns, groups or ads are told by, together: each list of values that has come has a number of its own. */
final readonly class AdValues
{
    private const AT_ONCE = 500;

    public function __construct(private RollupValues $values) {}

    public static function column(Dimension $dimension): string
    {
        return str_replace('-', '_', $dimension->value);
    }

    /**
     * @param array<int, list<string>> $lists each with a value for each dimension of DownTo::Ads, or for the first
     *     of them
     * @return array<int, int> their numbers
     */
    public function numbers(Client $client, array $lists): array
    {
        $columns = array_map(self::column(...), DownTo::Ads->dimensions());
        $numbers = [];
        foreach (array_chunk($lists, self::AT_ONCE, true) as $some) {
            $values = $this->values->numbers($client, array_merge(...array_values($some)));
            $rows = $digests = [];
            foreach ($some as $n => $list) {
                $of = array_map(static fn (string $v): int => $values[$v], $list);
                $of = array_pad($of, count($columns), RollupValues::NOTHING);
                $digests[$n] = md5(implode(',', $of), true);
                $rows[] = ['client_id' => $client->id, 'digest' => $digests[$n], ...array_combine($columns, $of)];
            }
            $known = self::known($client, $digests);
            $unknown = array_filter($rows, static fn (array $row): bool => ! isset($known[$row['digest']]));
            if ($unknown !== []) {
                DB::table('rollup_ads')->insertOrIgnore(array_values($unknown));
                $known = self::known($client, $digests);
            }
            foreach ($digests as $n => $digest) {
                $numbers[$n] = $known[$digest];
            }
        }

        return $numbers;
    }

    /**
     * @param array<int, string> $digests
     * @return array<string, int> of those that there are
     */
    private static function known(Client $client, array $digests): array
    {
        // what others have just put there is seen too
        return DB::table('rollup_ads')
            ->where('client_id', $client->id)
            ->whereIn('digest', array_values($digests))
            ->sharedLock()
            ->pluck('id', 'digest')
            ->all();
    }
}
