<?php

namespace App\Links;

use App\Models\Client;
use App\Models\Link;
use App\Models\User;
use App\Support\Bulk;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Link\Link as CoreLink;

/** Makes links, and lets them lead elsewhere. */
final readonly class Making
{
    /** Drawn words that are taken are drawn again; with 27 thousand million of them that is rare. */
    private const TRIES = 5;

    public function __construct(private Redirects $redirects) {}

    /**
     * @param list<Wanted> $wanted all of which may be made
     * @return list<int> their numbers, in their order
     *
     * @throws UniqueConstraintViolationException a word was taken meanwhile; nothing is made
     */
    public function make(Client $client, User $user, array $wanted): array
    {
        $looking = Looking::by($client);
        for ($try = 1; ; $try++) {
            $rows = array_map(static fn (Wanted $w): array => [
                'client_id' => $client->id,
                'title' => $w->title,
                'host' => $w->host,
                'code' => $w->code === '' ? Codes::draw() : $w->code,
                'made_by' => $user->id,
                'created_at' => now(),
                'updated_at' => now(),
                ...self::said($w->link, $looking),
            ], $wanted);
            try {
                return DB::transaction(static function () use ($rows): array {
                    $put = Bulk::insert('links', $rows, 'id');

                    return array_map(static fn (object $r): int => (int) $r->id, $put);
                });
            } catch (UniqueConstraintViolationException $e) {
                if ($try === self::TRIES) {
                    throw $e;
                }
            }
        }
    }

    /** A link that leads elsewhere from now on; its short address stays. */
    public function move(Link $link, User $user, CoreLink $to, string $why): void
    {
        $looking = Looking::by($link->client);
        DB::transaction(function () use ($link, $user, $to, $why, $looking): void {
            $locked = Link::query()->lockForUpdate()->findOrFail($link->id);
            $said = self::said($to, $looking);
            if ($said['url'] === $locked->url) {
                return;
            }
            $locked->moves()->create([
                'user_id' => $user->id,
                'at' => now(),
                'before' => $locked->url,
                'after' => $said['url'],
                'why' => $why,
            ]);
            $locked->update(['pairs' => $to->pairs] + $said);
        });
        $this->redirects->changed($link);
    }

    /** @return array{landing: string, pairs: string, url: string, sameness: string, fits: string, fault: string|null} */
    private static function said(CoreLink $link, Looking $looking): array
    {
        $sight = $looking->sight($link);

        return [
            'landing' => $link->landing,
            'pairs' => json_encode((object) $link->pairs, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            'url' => $link->url(),
            'sameness' => $link->sameness(),
            'fits' => Origins::ofLink($sight),
            'fault' => Faults::worst($looking->findings($sight)),
        ];
    }
}
