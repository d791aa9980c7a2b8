<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Url\Query;

/** Tells of each view where it came from, and the channel that it is counted in. */
final class Origins
{
    private const UNKNOWN = ['source' => '(unknown)', 'medium' => '(none)'];

    /** @var array<string, Origin> of pages without a query, by source and medium */
    private array $plain = [];

    /** @var array<string, string> channels by what the rules look at, those met last */
    private array $channels = [];

    /** @var array<string, string> short name → parameter */
    private readonly array $names;

    /** @var list<string> parameters that rules ask for without a short name */
    private readonly array $others;

    private readonly Origin $none;

    public function __construct(
        private readonly Channels $rules,
        private readonly ClickKeys $clicks = new ClickKeys(),
        private readonly Referrers $referrers = new Referrers(),
    ) {
        $this->names = $rules->keys + ['source' => 'source', 'medium' => 'medium'];
        $asked = [];
        foreach ($rules->rules as $rule) {
            foreach ($rule->all as $test) {
                $asked[] = $test->key;
            }
        }
        $this->others = array_values(array_diff(array_unique($asked), array_keys($this->names), ['family']));
        $read = array_map(static fn (): string => '', $this->names);
        $this->none = $this->origin($read, [], null, How::None, Origin::UNTOLD);
    }

    /** Of what has no view. */
    public function none(): Origin
    {
        return $this->none;
    }

    public function of(Event $view): Origin
    {
        $pairs = str_contains($view->url, '?') ? Query::read($view->url) : [];
        if ($pairs === []) {
            return $this->untracked($this->none->read, [], $view);
        }
        $first = [];
        foreach ($pairs as [$key, $value]) {
            $first[$key] ??= $value;
        }
        $read = [];
        foreach ($this->names as $name => $parameter) {
            $read[$name] = $first[$parameter] ?? '';
        }
        $click = $this->clicks->in($pairs);
        $origin = match (true) {
            $read['source'] !== '' || $read['medium'] !== '' => $this->origin($read, $first, $click, How::Keys, []),
            $click === null => $this->untracked($read, $first, $view),
            default => $this->origin($read, $first, $click, How::ClickId, [
                'source' => $click[1],
                'medium' => 'click-id',
            ]),
        };

        return count($first) === count($pairs) ? $origin : $origin->withTwice($this->twice($pairs));
    }

    /**
     * @param list<array{string, string}> $pairs
     * @return list<string> keys that are there more than once, by their short names
     */
    private function twice(array $pairs): array
    {
        $times = array_count_values(array_column($pairs, 0));

        return array_keys(
            array_filter($this->names, static fn (string $parameter): bool => ($times[$parameter] ?? 0) > 1),
        );
    }

    /**
     * @param array<string, string> $read by short name
     * @param array<string, string> $first by parameter
     */
    private function untracked(array $read, array $first, Event $view): Origin
    {
        if ($view->referrer === '') {
            return match (true) {
                $view->inApp => $this->origin($read, $first, null, How::None, self::UNKNOWN),
                $first === [] => $this->none,
                default => $this->origin($read, $first, null, How::None, Origin::UNTOLD),
            };
        }
        $from = $this->referrers->of($view->referrer, $view->site, $view->url);
        if ($first === [] && $from !== null) {
            $this->plain = count($this->plain) > 5000 ? [] : $this->plain;

            return $this->plain["{$from['source']}\0{$from['medium']}"]
                ??= $this->origin($read, [], null, How::Referrer, $from);
        }

        return $from === null
            ? $this->origin($read, $first, null, How::None, Origin::UNTOLD)
            : $this->origin($read, $first, null, How::Referrer, $from);
    }

    /**
     * @param array<string, string> $read by short name
     * @param array<string, string> $first by parameter
     * @param array{string, string}|null $click
     * @param array<string, string> $told what stands in for source and medium
     */
    private function origin(array $read, array $first, ?array $click, How $how, array $told): Origin
    {
        $keys = $told === [] ? $read : array_replace($read, $told);
        $family = $click === null ? '' : $this->clicks->family($click[1]);
        $all = implode("\0", $keys)."\0{$family}";
        foreach ($this->others as $parameter) {
            $all .= "\0".($first[$parameter] ?? '');
        }
        $channel = $this->channels[$all] ?? $this->channel($all, $keys + ['family' => $family], $first);

        return new Origin($keys, $how, $channel, $read, $click[0] ?? null, $click[1] ?? null, $family);
    }

    /**
     * @param string $all that is asked for
     * @param array<string, string> $asked by what rules call it
     * @param array<string, string> $first by parameter
     */
    private function channel(string $all, array $asked, array $first): string
    {
        foreach ($this->others as $parameter) {
            $asked[$parameter] = $first[$parameter] ?? '';
        }
        $values = [];
        foreach ($asked as $name => $value) {
            $values[$this->rules->keys[$name] ?? $name] = $value;
        }
        $this->channels = count($this->channels) > 20_000 ? [] : $this->channels;

        return $this->channels[$all] = $this->rules->of($values)->channel;
    }
}
