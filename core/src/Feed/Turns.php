<?php

declare(strict_types=1);

namespace Vestigon\Core\Feed;

/** How a link of an item came to be: what it was, and what each rule in turn has made of it. */
final class Turns
{
    /**
     * @param array<string, string> $item column → cell
     * @return list<array{rule: int|null, link: string}> the first as it came; then those rules that have changed it;
     *     none where the column has no link
     */
    public static function of(Feed $feed, array $item, string $column): array
    {
        $turns = [];
        $link = null;
        foreach ([null, ...array_keys($feed->rules)] as $rule) {
            $so = new Feed(
                $feed->title,
                $feed->form,
                $feed->itemPath,
                $feed->id,
                $feed->links,
                $feed->decimal,
                $rule === null ? [] : array_slice($feed->rules, 0, $rule + 1),
            );
            $next = (new Items($so))->next($item)->links[$column] ?? null;
            if ($next !== null && $next !== $link) {
                $turns[] = ['rule' => $rule, 'link' => $next];
                $link = $next;
            }
        }

        return $turns;
    }
}
