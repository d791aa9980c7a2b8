<?php

declare(strict_types=1);

namespace Vestigon\Core\Trace;

use Vestigon\Core\Url\Address;
use Vestigon\Core\Url\Encoding;
use Vestigon\Core\Url\Query;

/** Follows a URL through known hops to the landing page. */
final readonly class Trail
{
    public const MOST_HOPS = 10;

    /** @param array<string, Hop> $hops by host */
    private function __construct(private array $hops) {}

    /** @param list<Hop> $hops */
    public static function through(array $hops): self
    {
        return new self(array_combine(array_map(static fn (Hop $h): string => $h->host, $hops), $hops));
    }

    /** @return list<array{string, Stop}> every URL from the click to the landing page, and what became of it */
    public function from(string $url): array
    {
        $steps = [];
        while (Address::isWeb($url)) {
            $hop = $this->hops === [] ? null : $this->hops[Address::host($url)] ?? null;
            if ($hop === null) {
                $steps[] = [$url, Stop::Landed];

                return $steps;
            }
            if (count($steps) === self::MOST_HOPS) {
                $steps[] = [$url, Stop::Endless];

                return $steps;
            }
            $next = self::destination($url, $hop);
            if ($next === null) {
                break;
            }
            $steps[] = [$url, Stop::Hop];
            $url = $next;
        }
        $steps[] = [$url, Stop::Broken];

        return $steps;
    }

    /** Where a hop sends the click; null if the URL names no web address. */
    private static function destination(string $url, Hop $hop): ?string
    {
        $destination = null;
        $others = [];
        foreach (Query::read($url) as [$key, $value]) {
            if ($key !== $hop->to) {
                $others[] = Query::formEncoded($key).'='.Query::formEncoded($value);
            } else {
                $destination ??= $value;
            }
        }
        if ($destination === null || ! Address::isWeb($destination)) {
            return null;
        }
        if ($hop->appends) {
            $destination = Query::join($destination, implode('&', $others));
        }
        foreach ($hop->adds as [$key, $text]) {
            $destination = Query::join($destination, $key.'='.Encoding::encode($text));
        }

        return $destination;
    }
}
