<?php

namespace App\Feeds;

use App\Agreements\Agreements;
use App\Feeds\Files\Opening;
use App\Jobs\HandOnFeed;
use App\Models\Feed;
use App\Models\FeedCopy;
use App\Models\FeedDraft;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Feed\Feed as CoreFeed;

/** Works out what rules make of a list: of its first items while they are typed, of all of them as a draft. */
final readonly class Drafting
{
    /** Items that are looked at while somebody types. */
    private const TRIED = 5000;

    public function __construct(private Agreements $agreements) {}

    /**
     * @param list<mixed> $rules
     * @param array<string, mixed> $reads
     * @return array<string, mixed> as Tally tells, and whether it is of all items
     *
     * @throws UnusableInput
     */
    public function try(Feed $feed, array $rules, array $reads): array
    {
        $core = $feed->core($rules, $reads);
        $copy = $feed->kept?->setRelation('feed', $feed);
        if ($copy?->isThere() !== true) {
            throw new UnusableInput('no list is there yet: fetch it, or put in a file');
        }

        return $this->tally($feed, $copy, $core, self::TRIED);
    }

    public function work(FeedDraft $draft): void
    {
        $feed = $draft->feed;
        $copy = $feed->copies()->findOrFail($draft->copy_id)->setRelation('feed', $feed);
        try {
            $told = $this->tally($feed, $copy, $feed->core($draft->rules, $draft->reads), PHP_INT_MAX);
            $json = json_encode($told, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE);
            $now = ['state' => 'ready', 'result' => $json];
        } catch (UnusableInput $e) {
            $now = ['state' => 'failed', 'problem' => mb_substr(ucfirst($e->getMessage()), 0, 499).'.'];
        }
        DB::table('feed_drafts')->where(['id' => $draft->id, 'state' => 'working'])->update($now);
    }

    /** @return bool false: it is not to be decided on any more */
    public function apply(FeedDraft $draft, User $user): bool
    {
        $applied = DB::transaction(static function () use ($draft, $user): bool {
            $feed = Feed::query()->lockForUpdate()->findOrFail($draft->feed_id);
            if (! self::decide($draft, 'applied', $user)) {
                return false;
            }
            $feed->update(['applied_id' => $draft->id, 'reads' => $draft->reads]);

            return true;
        });
        if ($applied) {
            HandOnFeed::dispatch($draft->feed_id);
        }

        return $applied;
    }

    public static function decide(FeedDraft $draft, string $state, User $user): bool
    {
        return FeedDraft::query()
            ->whereKey($draft->id)
            ->whereIn('state', $state === 'applied' ? ['ready'] : ['ready', 'failed', 'working'])
            ->update(['state' => $state, 'decided_by' => $user->id, 'decided_at' => now()]) === 1;
    }

    /** @return array<string, mixed> */
    private function tally(Feed $feed, FeedCopy $copy, CoreFeed $core, int $most): array
    {
        $tally = new Tally($core, $this->agreements->channels($feed->client));
        $isAll = true;
        foreach (Opening::of($copy->path(), $core->form, $core->itemPath)->pieces() as $piece) {
            $cells = $piece->cells();
            if ($cells === null) {
                continue;
            }
            if ($tally->count() === $most) {
                $isAll = false;
                break;
            }
            $tally->item($cells);
        }

        return $tally->told() + ['isAll' => $isAll];
    }
}
