<?php

namespace App\Agreements;

use App\Models\Agreement;
use App\Models\AgreementKind;
use App\Models\Client;
use App\Watching\Touched;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Naming\Patterns;
use Vestigon\Core\Plan\AgreedWords;

/**
 * What a client's people have agreed on beside the plan, in revisions. Of a day counts the last revision that begins on
 * it or before: what has happened is judged by its own day.
 */
final class Agreements
{
    /** @var array<int, Patterns> by client: asked for with every element */
    private array $names = [];

    /** @var array<string, Channels> by client and day */
    private array $channels = [];

    public static function today(Client $client): string
    {
        return Carbon::now($client->time_zone)->toDateString();
    }

    /** The last revision, from whatever day it counts; null: nothing was agreed. */
    public function last(Client $client, AgreementKind $kind): ?Agreement
    {
        return $client->agreements()->where('kind', $kind)->orderByDesc('revision')->first();
    }

    /** @return array<string, mixed> the document that counts on a day; today's if none is given */
    public function on(Client $client, AgreementKind $kind, ?string $day = null): array
    {
        return $client
            ->agreements()
            ->where('kind', $kind)
            ->where('from_day', '<=', $day ?? self::today($client))
            ->orderByDesc('revision')
            ->first()
            ->document ?? $kind->first();
    }

    public function channels(Client $client, ?string $day = null): Channels
    {
        $day ??= self::today($client);

        return $this->channels["{$client->id} {$day}"] ??= ChannelsReader::read(
            new Cursor($this->on($client, AgreementKind::Channels, $day)),
        );
    }

    /** @return \Closure(string): Channels of a day: the very same for all days that one revision counts on */
    public function channelsByDay(Client $client): \Closure
    {
        $all = $client->agreements()->where('kind', AgreementKind::Channels)->orderByDesc('revision')->get();
        $read = [];

        return static function (string $day) use ($all, &$read): Channels {
            $of = $all->first(static fn (Agreement $a): bool => substr((string) $a->from_day, 0, 10) <= $day);

            return $read[$of->revision ?? 0] ??= ChannelsReader::read(
                new Cursor($of->document ?? AgreementKind::Channels->first()),
            );
        };
    }

    public function words(Client $client, ?string $day = null): AgreedWords
    {
        return AgreedWords::read(new Cursor($this->on($client, AgreementKind::Words, $day)));
    }

    /** What the names of a client's elements follow today. */
    public function names(int $client): Patterns
    {
        return $this->names[$client] ??= Patterns::read(
            (new Cursor($this->on(Client::query()->findOrFail($client), AgreementKind::Names)))->at('patterns'),
        );
    }

    /**
     * @param array<string, mixed> $document
     * @param int $known the revision that the change was made to; 0: nothing was agreed
     * @return bool false: somebody else has saved another meanwhile
     */
    public function save(
        Client $client,
        AgreementKind $kind,
        array $document,
        int $known,
        string $from,
        int $user,
    ): bool {
        $kind->check($document);
        unset($this->names[$client->id]);
        $this->channels = [];

        return DB::transaction(function () use ($client, $kind, $document, $known, $from, $user): bool {
            // of two who save at once, the second sees the first
            Client::query()->whereKey($client->id)->lockForUpdate()->first();
            if (($this->last($client, $kind)->revision ?? 0) !== $known) {
                return false;
            }
            $client
                ->agreements()
                ->create([
                    'kind' => $kind,
                    'revision' => $known + 1,
                    'from_day' => $from,
                    'begun' => $from <= self::today($client),
                    'document' => $document,
                    'user_id' => $user,
                ]);
            if ($kind === AgreementKind::Channels && $from <= self::today($client)) {
                Touched::all($client->id, Carbon::parse($from, $client->time_zone)->utc()->toDateTimeString());
            }

            return true;
        }, 5);
    }
}
