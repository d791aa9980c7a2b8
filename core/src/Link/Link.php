<?php

declare(strict_types=1);

namespace Vestigon\Core\Link;

use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\LinkQuery;
use Vestigon\Core\Url\Query;
use Vestigon\Core\Url\QueryText;

/** A link that people place themselves: a landing page, and what it is to carry. */
final readonly class Link
{
    /** @var array<string, string> key → value; what is empty is not sent */
    public array $pairs;

    /** @param array<string, string> $pairs in the order in which they are sent */
    public function __construct(public string $landing, array $pairs)
    {
        $this->pairs = array_filter($pairs, static fn (string $value): bool => $value !== '');
    }

    /** The landing page with the pairs: each in the place of one that it has, or behind its own. */
    public function url(): string
    {
        $url = new LinkQuery($this->landing);
        foreach ($this->pairs as $key => $value) {
            $url->set((string) $key, Encoding::encode((string) $key), Encoding::encode($value));
        }

        return (string) $url;
    }

    /**
     * The link cut into what the page's address has of its own, and what it is to carry.
     *
     * @return list<array{string, bool}> a stretch of it, and whether it carries one of the pairs
     */
    public function stretches(): array
    {
        $stretches = [];
        foreach (QueryText::ofUrl($this->url())->pieces as $piece) {
            $carries = $piece->isParameter && isset($this->pairs[Query::decoded(explode('=', $piece->text, 2)[0])]);
            $last = array_key_last($stretches);
            if ($last !== null && $stretches[$last][1] === $carries) {
                $stretches[$last][0] .= $piece->mark.$piece->text;
            } else {
                $stretches[] = [$piece->mark.$piece->text, $carries];
            }
        }

        return $stretches;
    }

    /** The same for links that lead to the same page with the same pairs, in whatever order they were given. */
    public function sameness(): string
    {
        $pairs = $this->pairs;
        ksort($pairs, SORT_STRING);

        $all = json_encode([$this->landing, $pairs], JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE);

        return hash('xxh128', $all);
    }
}
