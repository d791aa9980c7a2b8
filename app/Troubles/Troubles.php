<?php

namespace App\Troubles;

use App\Models\Client;
use App\Models\Trouble;
use Illuminate\Support\Facades\DB;

/** What is wrong, with its history: since when, mended when, come back when. */
final readonly class Troubles
{
    /** Seconds for which what was found is good. */
    private const GOOD_FOR = 60;

    public function __construct(private Looking $looking) {}

    /** Looks again, if nobody has for a while; of two at once one does. */
    public function lookAgain(Client $client, int $goodFor = self::GOOD_FOR): void
    {
        $before = now()->subSeconds($goodFor)->toDateTimeString();
        $isMine = Client::query()
            ->whereKey($client->id)
            ->where(static fn ($of) => $of->whereNull('troubles_at')->orWhere('troubles_at', '<=', $before))
            ->toBase()
            ->update(['troubles_at' => now()->toDateTimeString()]);
        if ($isMine === 1) {
            $this->keep($client, $this->looking->of($client));
        }
    }

    /** @param list<Found> $all */
    private function keep(Client $client, array $all): void
    {
        DB::transaction(function () use ($client, $all): void {
            Client::query()->whereKey($client->id)->lockForUpdate()->first();
            $known = Trouble::query()->where('client_id', $client->id)->get()->keyBy('hash');
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
                    ['what', 'node_id', 'ads', 'clicks', 'cost', 'returned_at', 'mended_at'],
                );
            }
            Trouble::query()
                ->whereKey($known->whereNull('mended_at')->modelKeys())
                ->update(['mended_at' => $now]);
        }, 5);
    }
}
