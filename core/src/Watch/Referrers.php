<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** What hosts that people come from are called, and which do not count as such. */
final class Referrers
{
    /** @var array<string, array{string, string}> by host, those met last */
    private array $known = [];

    /**
     * @param list<array{host: string, source: string, medium: string}> $words the first that fits counts
     * @param array<string, list<string>> $own by site
     * @param list<string> $stations where people pass through on their way: payment, sign-in
     */
    public function __construct(
        private readonly array $words = [],
        private readonly array $own = [],
        private readonly array $stations = [],
    ) {}

    /**
     * @param string $page the view's own host
     * @return array{string, string}|null source and medium; null: nobody came from there
     */
    public function of(string $referrer, string $site, string $page): ?array
    {
        $host = $referrer === '' ? '' : Hosts::of($referrer);
        if ($host === '' || $host === $page) {
            return null;
        }
        foreach ([...$this->own[$site] ?? [], ...$this->stations] as $pattern) {
            if (Hosts::fits($pattern, $host)) {
                return null;
            }
        }
        $this->known = count($this->known) > 5000 ? [] : $this->known;

        return $this->known[$host] ??= $this->called($host);
    }

    /** @return array{string, string} */
    private function called(string $host): array
    {
        foreach ($this->words as $word) {
            if (Hosts::fits($word['host'], $host)) {
                return [$word['source'], $word['medium']];
            }
        }

        return [$host, 'referral'];
    }
}
