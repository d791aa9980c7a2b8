<?php

namespace App\Balance;

use App\Models\Client;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** Where the lines of added up days are kept: by campaign; and, for what asks of nothing below accounts, by account. */
final class StairLines
{
    private const BY_CAMPAIGN = 'stair_lines';

    private const BY_ACCOUNT = 'stair_totals';

    private const CHUNK = 1000;

    private const SUMS = ['n', 'cost', 'conversions', 'value'];

    /** The shortest that tell what is asked. */
    public static function for(Asked $asked): Builder
    {
        $isOfCampaigns = in_array('campaign', [...$asked->by, $asked->within[0] ?? null], true);

        return DB::table($isOfCampaigns ? self::BY_CAMPAIGN : self::BY_ACCOUNT)
            ->where('client_id', $asked->client->id)
            ->whereBetween('day', [$asked->from, $asked->to]);
    }

    /**
     * @param list<string> $days
     * @param \Closure(Builder): mixed|null $which only those
     */
    public static function drop(Client $client, array $days, ?\Closure $which = null): void
    {
        foreach ([self::BY_CAMPAIGN, self::BY_ACCOUNT] as $table) {
            DB::table($table)
                ->where('client_id', $client->id)
                ->whereIn('day', $days)
                ->when($which !== null, $which)
                ->delete();
        }
    }

    /** @param iterable<array<string, mixed>> $rows as StairRecords has them, by platform, account and campaign */
    public static function write(Client $client, string $day, iterable $rows): void
    {
        $lines = [self::BY_CAMPAIGN => [], self::BY_ACCOUNT => []];
        foreach ($rows as $row) {
            $line = [
                'client_id' => $client->id,
                'day' => $day,
                'platform' => $row['platform'],
                'account_id' => $row['account'],
                'step' => $row['step'],
                'tracker_id' => $row['tracker'] ?? null,
                'channel' => $row['channel'] ?? '',
                'currency' => $row['currency'] ?? '',
            ];
            self::add($lines[self::BY_ACCOUNT], $line, $row);
            self::add($lines[self::BY_CAMPAIGN], $line + ['campaign_id' => $row['campaign']], $row);
        }
        foreach ($lines as $table => $all) {
            foreach (array_chunk(array_values($all), self::CHUNK) as $some) {
                DB::table($table)->insert($some);
            }
        }
    }

    /**
     * @param array<string, array<string, mixed>> $lines
     * @param array<string, mixed> $line
     * @param array<string, mixed> $row
     */
    private static function add(array &$lines, array $line, array $row): void
    {
        $key = implode("\0", $line);
        $lines[$key] ??= $line + array_fill_keys(self::SUMS, 0);
        foreach (self::SUMS as $sum) {
            $lines[$key][$sum] += $row[$sum] ?? 0;
        }
    }
}
