<?php

namespace App\Links;

use App\Models\Link;
use Illuminate\Support\Facades\DB;

/** Counts what the redirector has written down: each file once, whatever happens in between. */
final class Opened
{
    /** @return int how many files were counted */
    public function count(): int
    {
        $files = glob(Redirects::folder().'/opened/[0-9]*') ?: [];
        $done = gmdate('YmdHi', now()->getTimestamp() - 60); // the minute before may still be written to
        $counted = 0;
        foreach ($files as $file) {
            $name = basename($file);
            if ($name < $done) {
                $this->file($name, (string) file_get_contents($file));
                unlink($file);
                $counted++;
            }
        }
        DB::table('link_counts')->where('counted_at', '<', now()->subDays(7))->delete();

        return $counted;
    }

    private function file(string $name, string $lines): void
    {
        $times = array_count_values(array_filter(explode("\n", $lines), strlen(...)));
        $links = Link::withTrashed()
            ->with('client:id,time_zone')
            ->whereIntegerInRaw('id', array_map(intval(...), array_keys($times)))
            ->get()
            ->keyBy('id');
        $at = \DateTimeImmutable::createFromFormat('YmdHi', $name, new \DateTimeZone('UTC'));
        DB::transaction(static function () use ($name, $times, $links, $at): void {
            $isNew = DB::table('link_counts')->insertOrIgnore(['file' => $name, 'counted_at' => now()]) > 0;
            if ($at === false || ! $isNew) {
                return; // it was counted, and not taken away
            }
            foreach ($times as $line => $n) {
                [$id, $kind] = explode(' ', (string) $line) + ['', ''];
                $link = $links[(int) $id] ?? null;
                if ($link === null) {
                    continue;
                }
                $column = $kind === 'p' ? 'programs' : 'people';
                DB::table('link_days')->upsert(
                    [
                        'link_id' => $link->id,
                        'day' => $at->setTimezone(new \DateTimeZone($link->client->time_zone))->format('Y-m-d'),
                        $column => $n,
                    ],
                    ['link_id', 'day'],
                    [$column => DB::raw("{$column} + values({$column})")],
                );
            }
        });
    }
}
