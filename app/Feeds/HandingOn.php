<?php

namespace App\Feeds;

use App\Agreements\Agreements;
use App\Feeds\Files\Opening;
use App\Feeds\Files\Outlet;
use App\Models\Feed;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Feed\Form;

/** Writes what is handed on: the list that is kept, with the rules that are applied, in the form that it came in. */
final readonly class HandingOn
{
    public function __construct(private Agreements $agreements) {}

    /** Both or one of them has changed. */
    public function again(Feed $feed): void
    {
        $feed->load('kept', 'applied', 'client');
        if ($feed->kept === null || $feed->applied === null) {
            return;
        }
        $copy = $feed->kept->setRelation('feed', $feed);
        if (! $copy->isThere()) {
            return;
        }
        $reads = $feed->applied->reads;
        $tally = new Tally(
            $feed->core($feed->applied->rules, $reads),
            $this->agreements->channels($feed->client),
        );
        $file = Opening::of($copy->path(), Form::from($reads['form']), $reads['item'] ?? null);
        $part = $feed->outPath().'.'.bin2hex(random_bytes(4));
        $out = fopen($part, 'wb') ?: throw new \RuntimeException("{$part} can't be written");
        $packed = gzopen("{$part}.gz", 'wb6') ?: throw new \RuntimeException("{$part}.gz can't be written");
        $outlet = new Outlet(static function (string $text) use ($out, $packed): void {
            fwrite($out, $text);
            gzwrite($packed, $text);
        });
        foreach ($file->pieces() as $piece) {
            $cells = $piece->cells();
            $links = $cells === null ? [] : $tally->item($cells);
            $outlet->tell($links === [] ? $piece->raw() : $piece->with($links));
        }
        $outlet->end();
        fclose($out);
        gzclose($packed);
        DB::transaction(static function () use ($feed, $part, $file, $tally, $copy): void {
            $locked = Feed::query()->lockForUpdate()->findOrFail($feed->id);
            if ($locked->kept_id !== $copy->id || $locked->applied_id !== $feed->applied_id) {
                array_map(unlink(...), [$part, "{$part}.gz"]); // something newer is on its way

                return;
            }
            rename($part, $locked->outPath());
            rename("{$part}.gz", $locked->outPath().'.gz');
            $locked->update([
                'out_digest' => hash_file('xxh128', $locked->outPath()),
                'out_at' => now(),
                'out_items' => $tally->count(),
                'out_changed' => $tally->changed(),
                'out_problems' => $tally->problems(),
                'ending' => $file->ending(),
            ]);
        });
    }
}
