<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

/** What hosts that people come from are called, and which do not count as such. */
final class Referrers
{
    /** @var array<string, array{source: string, medium: string}|null> those met last */
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
     * @param string $page the view's own URL
     * @return array{source: string, medium: string}|null null: nobody came from there
     */
    public function of(string $referrer, string $site, string $page): ?array
    {
        $here = substr($page, 0, strcspn($page, '/?#', 8) + 8);
        $key = "{$site}\0{$here}\0{$referrer}";
        if (! array_key_exists($key, $this->known)) {
            $this->known = count($this->known) > 5000 ? [] : $this->known;
            $this->known[$key] = $this->called(Hosts::of($referrer), $site, Hosts::of($page));
        }

        return $this->known[$key];
    }

    /** @return array{source: string, medium: string}|null */
    private function called(string $host, string $site, string $page): ?array
    {
        if ($host === '' || $host === $page) {
            return null;
        }
        foreach ([...$this->own[$site] ?? [], ...$this->stations] as $pattern) {
            if (Hosts::fits($pattern, $host)) {
                return null;
            }
        }
        foreach ($this->words as $word) {
            if (Hosts::fits($word['host'], $host)) {
                return ['source' => $word['source'], 'medium' => $word['medium']];
            }
        }

        return ['source' => $host, 'medium' => 'referral'];
    }
}
