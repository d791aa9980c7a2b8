<?php

declare(strict_types=1);

namespace Vestigon\Core\Link;

use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Channel\Counted;
use Vestigon\Core\Plan\AgreedWords;
use Vestigon\Core\Plan\Vocabulary;
use Vestigon\Core\Url\Query;

/** A link as rules see it: beside what was agreed on. */
final readonly class Sight
{
    public string $url;

    /** @var array<string, list<string>> key → its values, as a page reads them */
    public array $read;

    public Counted $counted;

    /**
     * @param list<string> $shortHosts hosts whose short addresses are ours
     */
    public function __construct(
        public Link $link,
        public Channels $channels,
        private AgreedWords $words,
        private ?string $day = null,
        public array $shortHosts = [],
    ) {
        $this->url = $link->url();
        $read = $first = [];
        foreach (Query::read($this->url) as [$key, $value]) {
            $read[$key][] = $value;
            $first[$key] ??= $value;
        }
        $this->read = $read;
        $this->counted = $channels->of($first);
    }

    public function vocabulary(string $key): Vocabulary
    {
        return $this->words->of($key, $this->day);
    }

    /** The first value of what channel rules call `source`, `medium` …; empty if there is none. */
    public function first(string $name): string
    {
        return $this->read[$this->channels->keys[$name] ?? "utm_{$name}"][0] ?? '';
    }

    public function host(): string
    {
        return strtolower((string) parse_url($this->link->landing, PHP_URL_HOST));
    }
}
