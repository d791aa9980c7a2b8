<?php

namespace App\Troubles;

use App\Jobs\LookAtArrivals;
use App\Jobs\LookForTroubles;
use App\Models\Client;
use App\Models\Trouble;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Facades\DB;

/** What is wrong, with its history: since when, mended when, come back when. */
final readonly class Troubles
{
    /** Seconds for which what was found is good. */
    private const GOOD_FOR = 60;

    /** The same of what arrives wrong, for which results are added up. */
    private const ARRIVALS_GOOD_FOR = 600;

    /** What was mended is told for so many days. */
    private const MENDED = 14;

    public function __construct(private Looking $looking, private ArrivesWrong $arrivesWrong) {}

    /** Has it looked again, if nobody has for a while; of two at once one does. */
    public function lookAgain(Client $client, int $goodFor = self::GOOD_FOR): void
    {
        if (self::isMine($client, 'troubles_at', $goodFor)) {
            LookForTroubles::dispatch($client->id);
        }
        if (self::isMine($client, 'wrong_at', max($goodFor, self::ARRIVALS_GOOD_FOR))) {
            LookAtArrivals::dispatch($client->id);
        }
    }

    public function look(Client $client): void
    {
        $kinds = array_filter(TroubleKind::cases(), static fn (TroubleKind $k) => $k !== TroubleKind::Arrives);
        $this->keep($client, $this->looking->of($client), $kinds);
        Client::query()->whereKey($client->id)->toBase()->update(['troubles_done_at' => now()->toDateTimeString()]);
    }

    /** Is somebody looking just now, so that what is told may be of before? */
    public static function isLooking(Client $client): bool
    {
        return Client::query()
            ->whereKey($client->id)
            ->where(
                static fn ($of) => $of
                    ->whereNull('troubles_done_at')
                    ->orWhereColumn('troubles_done_at', '<', 'troubles_at'),
            )
            ->exists();
    }

    public function lookAtArrivals(Client $client): void
    {
        $this->keep($client, $this->arrivesWrong->in($client), [TroubleKind::Arrives]);
    }

    /**
     * What is wrong, and what was mended of late: the dearest first.
     *
     * @return HasMany<Trouble, Client>
     */
    public static function shown(Client $client): HasMany
    {
        return $client
            ->troubles()
            ->with(['account:id,name,dialect', 'feed:id,name', 'acceptedBy:id,name'])
            ->where(
                static fn ($of) => $of
                    ->whereNull('mended_at')
                    ->orWhere('mended_at', '>=', now()->subDays(self::MENDED)),
            )
            ->orderByRaw('mended_at is not null')
            ->orderByDesc('cost')
            ->orderByDesc('clicks')
            ->orderByDesc('ads')
            ->orderBy('id');
    }

    private static function isMine(Client $client, string $column, int $goodFor): bool
    {
        $before = now()->subSeconds($goodFor)->toDateTimeString();

        return Client::query()
            ->whereKey($client->id)
            ->where(static fn ($of) => $of->whereNull($column)->orWhere($column, '<=', $before))
            ->toBase()
            ->update([$column => now()->toDateTimeString()]) === 1;
    }

    /**
     * @param list<Found> $all
     * @param array<TroubleKind> $kinds that were looked for: what is not found of them is mended
     */
    private function keep(Client $client, array $all, array $kinds): void
    {
        DB::transaction(function () use ($client, $all, $kinds): void {
            Client::query()->whereKey($client->id)->lockForUpdate()->first();
            $known = Trouble::query()->where('client_id', $client->id)->whereIn('kind', $kinds)->get()->keyBy('hash');
            $now = now()->toDateTimeString();
            $rows = [];
            foreach ($all as $found) {
                $was = $known->pull($found->hash());
                $rows[] = [
                    'client_id' => $client->id,
                    'account_id' => $found->account,
                    'feed_id' => $found->feed,
                    'kind' => $found->kind->value,
                    'hash' => $found->hash(),
                    'what' => mb_substr($found->what, 0, 500),
                    'about' => $found->about === null ? null : json_encode($found->about, JSON_THROW_ON_ERROR),
                    'node_id' => $found->node,
                    'ads' => $found->ads,
                    'clicks' => $found->clicks,
                    'cost' => $found->cost,
                    'first_at' => $was === null ? $now : $was->getRawOriginal('first_at'),
                    'returned_at' => $was?->mended_at === null ? $was?->getRawOriginal('returned_at') : $now,
                    'mended_at' => null,
                ];
            }
            foreach (array_chunk($rows, 500) as $some) {
                DB::table('troubles')->upsert(
                    $some,
                    ['client_id', 'hash'],
                    ['what', 'about', 'node_id', 'ads', 'clicks', 'cost', 'returned_at', 'mended_at'],
                );
            }
            Trouble::query()
                ->whereKey($known->whereNull('mended_at')->modelKeys())
                ->update(['mended_at' => $now]);
        }, 5);
    }
}
