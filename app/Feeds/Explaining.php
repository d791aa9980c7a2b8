<?php

namespace App\Feeds;

use App\Feeds\Files\Opening;
use App\Models\Client;
use App\Models\Feed;
use Vestigon\Core\Feed\Form;
use Vestigon\Core\Feed\Items;
use Vestigon\Core\Feed\Turns;
use Vestigon\Core\Url\Query;

/**
 * The items of product lists whose links lead to a URL, and how rules have made them. Listings put something of their
 * own behind a link: what it has must be there, more may be.
 */
final class Explaining
{
    private const MOST = 5;

    private const READ_AT_ONCE = 1 << 20;

    /** @return list<array<string, mixed>> */
    public function of(Client $client, string $url): array
    {
        $found = [];
        foreach ($client->feeds()->whereNotNull('applied_id')->with('kept', 'applied')->get() as $feed) {
            /** @var Feed $feed */
            foreach ($this->items($feed, $url) as $item) {
                $found[] = $item;
                if (count($found) === self::MOST) {
                    return $found;
                }
            }
        }

        return $found;
    }

    /** @return iterable<array<string, mixed>> */
    private function items(Feed $feed, string $url): iterable
    {
        $copy = $feed->kept?->setRelation('feed', $feed);
        $needles = self::asInFiles(self::page($url));
        if ($copy?->isThere() !== true || $feed->applied === null || ! self::has($copy->path(), $needles)) {
            return;
        }
        $reads = $feed->applied->reads;
        $core = $feed->core($feed->applied->rules, $reads);
        $items = new Items($core);
        foreach (
            Opening::of($copy->path(), Form::from($reads['form']), $reads['item'] ?? null)->pieces() as $piece
        ) {
            $cells = self::among($piece->raw(), $needles) ? $piece->cells() : null;
            $links = $cells === null ? [] : $items->next($cells)->links;
            $leading = array_filter($links, static fn (string $link): bool => self::leadsTo($link, $url));
            if ($leading !== []) {
                // of two links of one item, the one that says more
                uasort($leading, static fn (string $a, string $b): int => strlen($b) <=> strlen($a));
                $column = (string) array_key_first($leading);
                yield [
                    'feed' => ['id' => $feed->id, 'name' => $feed->name],
                    'item' => $cells[$core->id] ?? '',
                    'kind' => $core->links[$column]->value,
                    'turns' => self::told(Turns::of($core, $cells, $column), $core->rules),
                ];
            }
        }
    }

    /**
     * @param list<array{rule: int|null, link: string}> $turns
     * @param list<\Vestigon\Core\Feed\Rule> $rules
     * @return list<array<string, mixed>>
     */
    private static function told(array $turns, array $rules): array
    {
        $told = [];
        $before = null;
        foreach ($turns as ['rule' => $rule, 'link' => $link]) {
            $told[] = [
                'rule' => $rule === null ? null : $rule + 1,
                'title' => $rule === null ? '' : $rules[$rule]->title,
                'segments' => Ribbons::of($before ?? $link, $link),
            ];
            $before = $link;
        }

        return $told;
    }

    private static function page(string $url): string
    {
        return substr($url, 0, strcspn($url, '?#'));
    }

    /** @return list<string> a page's address as it may stand in a list */
    private static function asInFiles(string $page): array
    {
        return array_values(
            array_unique([$page, htmlspecialchars($page, ENT_XML1), str_replace('/', '\\/', $page)]),
        );
    }

    private static function leadsTo(string $link, string $url): bool
    {
        $are = Query::read($url);
        foreach (self::page($link) === self::page($url) ? Query::read($link) : [[null, null]] as $pair) {
            if (! in_array($pair, $are, true)) {
                return false;
            }
        }

        return true;
    }

    /** @param list<string> $needles */
    private static function among(string $text, array $needles): bool
    {
        foreach ($needles as $needle) {
            if (str_contains($text, $needle)) {
                return true;
            }
        }

        return false;
    }

    /**
     * Does any stand in a file? Most lists have no item of the page: they are not taken to pieces.
     *
     * @param list<string> $needles
     */
    private static function has(string $path, array $needles): bool
    {
        $file = fopen($path, 'rb');
        $longest = max(array_map(strlen(...), $needles));
        $read = '';
        while ($file !== false && ! feof($file)) {
            $read = substr($read, -$longest).fread($file, self::READ_AT_ONCE);
            if (self::among($read, $needles)) {
                fclose($file);

                return true;
            }
        }
        if ($file !== false) {
            fclose($file);
        }

        return false;
    }
}
