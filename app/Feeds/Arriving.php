<?php

namespace App\Feeds;

use App\Feeds\Files\Opening;
use App\Jobs\HandOnFeed;
use App\Models\Feed;
use App\Models\FeedCopy;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Vestigon\Core\Document\UnusableInput;

/**
 * Takes a list that has come: unpacked, read through, and kept if it can be trusted. One that can't be read, or has
 * lost many of its items, is held, and the last good one stays.
 */
final readonly class Arriving
{
    /** A list that has lost more than this share of its items is held. */
    private const LOST = 0.3;

    private const COPIES = 5;

    /**
     * @param string $file as it came; it is taken away
     *
     * @throws UnusableInput it can't be read; nothing has changed
     */
    public function take(Feed $feed, string $file): FeedCopy
    {
        File::ensureDirectoryExists($feed->folder());
        $plain = "{$feed->folder()}/coming".bin2hex(random_bytes(4));
        try {
            Opening::plain($file, $plain);
            [$items, $reads] = self::read($feed, $plain);
        } catch (UnusableInput $e) {
            File::delete($plain);
            throw $e;
        } finally {
            File::delete($file);
        }
        $copy = DB::transaction(static function () use ($feed, $plain, $items, $reads): FeedCopy {
            $locked = Feed::query()->lockForUpdate()->findOrFail($feed->id);
            $before = $locked->kept?->items;
            $why = match (true) {
                $items === 0 => 'The list has no items.',
                $before !== null && $items < $before * (1 - self::LOST) => 'The list has '.number_format($items)
                    .' items, and had '.number_format($before).'.',
                default => null,
            };
            $copy = $locked->copies()->create([
                'came_at' => now(),
                'bytes' => (int) filesize($plain),
                'items' => $items,
                'digest' => (string) hash_file('xxh128', $plain),
                'state' => 'held',
                'why' => $why,
            ]);
            rename($plain, $copy->setRelation('feed', $locked)->path());
            if ($why === null) {
                self::keep($locked, $copy, $reads);
            }

            return $copy;
        });
        if ($copy->state === 'kept') {
            HandOnFeed::dispatch($feed->id);
        }

        return $copy;
    }

    /** A person says that a list that was held is right as it is. */
    public function accept(FeedCopy $copy): void
    {
        DB::transaction(static function () use ($copy): void {
            $feed = Feed::query()->lockForUpdate()->findOrFail($copy->feed_id);
            self::keep($feed, $copy, $feed->reads ?? Suggestion::of(Opening::of($copy->path())));
        });
        HandOnFeed::dispatch($copy->feed_id);
    }

    /** @param array<string, mixed> $reads */
    private static function keep(Feed $feed, FeedCopy $copy, array $reads): void
    {
        $feed->copies()->where('state', 'kept')->update(['state' => 'past']);
        $copy->update(['state' => 'kept', 'why' => null]);
        $feed->update(['kept_id' => $copy->id, 'reads' => $reads, 'problem' => null]);
        $old = $feed->copies()->where('id', '<=', $copy->id)->orderByDesc('id')->skip(self::COPIES)->take(50)->get();
        foreach ($old as $past) {
            File::delete($past->setRelation('feed', $feed)->path());
        }
    }

    /**
     * @return array{int, array<string, mixed>} items, and how they are read
     *
     * @throws UnusableInput
     */
    private static function read(Feed $feed, string $path): array
    {
        $file = Opening::of($path);
        $reads = $feed->reads ?? Suggestion::of($file);
        $items = 0;
        foreach ($file->pieces() as $piece) {
            $items += $piece->cells() === null ? 0 : 1;
        }

        if ($reads['form'] !== $file->form()->value) {
            throw new UnusableInput("the list is {$file->form()->value} now, and was {$reads['form']}");
        }

        return [$items, $reads];
    }
}
