<?php

namespace App\Links;

use App\Models\Client;
use App\Models\Link;
use App\Support\Text;
use Illuminate\Support\Facades\DB;
use Vestigon\Core\Link\Link as CoreLink;
use Vestigon\Core\Link\Sight;

/** Which sessions began by which link: the page, source, medium, campaign, term and content are those of the link. */
final class Origins
{
    private const KEYS = ['source', 'medium', 'campaign', 'term', 'content'];

    private const ROWS = 1000;

    public static function ofLink(Sight $sight): string
    {
        return self::digest(
            preg_split('/[?#]/', $sight->url)[0] ?? '',
            array_map($sight->first(...), array_combine(self::KEYS, self::KEYS)),
        );
    }

    /** @return list<Link> that lead to a URL, or to it without what others have added */
    public static function links(Client $client, string $url): array
    {
        $sight = Looking::by($client)->sight(new CoreLink($url, []));
        $fitting = $client->links()->withTrashed()->where('fits', self::ofLink($sight))->orderBy('id')->get();

        return $fitting
            ->filter(
                static fn (Link $link): bool => array_filter(
                    $link->pairs,
                    static fn (string $key): bool => ! in_array($link->pairs[$key], $sight->read[$key] ?? [], true),
                    ARRAY_FILTER_USE_KEY,
                ) === [],
            )
            ->values()
            ->all();
    }

    /**
     * @param list<string> $urls
     * @return array<string, array{id: int, title: string, short: string|null}> URL → the earliest link that leads there
     */
    public static function linksOf(Client $client, array $urls): array
    {
        $looking = Looking::by($client);
        $fits = [];
        foreach ($urls as $url) {
            $fits[self::ofLink($looking->sight(new CoreLink($url, [])))][] = $url;
        }
        $of = [];
        foreach (array_chunk(array_keys($fits), self::ROWS) as $some) {
            $links = $client->links()->withTrashed()->whereIn('fits', $some)->orderByDesc('id')->get();
            foreach ($links as $link) {
                foreach ($fits[$link->fits] as $url) {
                    $of[$url] = Looking::brief($link);
                }
            }
        }

        return $of;
    }

    /**
     * @param list<array<string, mixed>> $sessions rows of site_sessions
     * @return list<array<string, mixed>> the same, with `link_id`
     */
    public static function told(Client $client, array $sessions): array
    {
        $fits = array_map(
            static fn (array $s): ?string => $s['is_tracked'] ? self::digest($s['landing'], $s) : null,
            $sessions,
        );
        $links = [];
        foreach (array_chunk(array_unique(array_filter($fits)), self::ROWS) as $some) {
            // the earliest of several that can't be told apart
            $links += DB::table('links')
                ->where('client_id', $client->id)
                ->whereIn('fits', $some)
                ->groupBy('fits')
                ->selectRaw('fits, min(id) id')
                ->pluck('id', 'fits')
                ->all();
        }

        return array_map(
            static fn (array $s, ?string $f): array => $s + ['link_id' => $f === null ? null : $links[$f] ?? null],
            $sessions,
            $fits,
        );
    }

    /** @param array<string, mixed> $keys */
    private static function digest(string $page, array $keys): string
    {
        $all = [Text::fit($page, 500)];
        foreach (self::KEYS as $key) {
            $all[] = Text::fit((string) $keys[$key], 255);
        }

        return hash('xxh128', implode("\0", $all));
    }
}
