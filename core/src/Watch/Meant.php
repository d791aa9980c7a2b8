<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

use Vestigon\Core\Plan\Truth;
use Vestigon\Core\Url\LinkQuery;
use Vestigon\Core\Url\Query;

/**
 * What a view would have said, had the agreement held: the truth of its click, as far as it is known. What arrived
 * stays where it was; this is another reading of it. (watch.md §9)
 */
final readonly class Meant
{
    /**
     * @param string $url with what was meant in place of what arrived
     * @param list<array{string, string, string}> $healed key, what arrived first under it, what was meant
     * @param list<string> $unknown keys of which nothing can say what was meant: they stay as they arrived
     */
    private function __construct(public string $url, public array $healed, public array $unknown) {}

    /** @param array<string, string> $fields what is known of the click, by field; what is not known is not there */
    public static function of(string $url, Truth $truth, array $fields): self
    {
        $link = new LinkQuery($url);
        $arrived = Query::first($url);
        $healed = $unknown = [];
        foreach ($truth->choices as $key => $choice) {
            $key = (string) $key;
            if (array_diff($choice->fields(), array_keys($fields)) !== []) {
                $unknown[] = $key;

                continue;
            }
            $meant = $choice->value($fields);
            if ($meant !== '' && ($arrived[$key] ?? '') !== $meant) {
                $link->set($key, rawurlencode($key), rawurlencode($meant));
                $healed[] = [$key, $arrived[$key] ?? '', $meant];
            }
        }

        return new self((string) $link, $healed, $unknown);
    }
}
