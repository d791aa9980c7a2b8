<?php

declare(strict_types=1);

namespace Vestigon\Core\Watch;

use Vestigon\Core\Channel\Channels;
use Vestigon\Core\Url\Query;

/** Tells of each view where it came from, and the channel that it is counted in. */
final class Origins
{
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
        $pairs = Query::read($view->url);
        $first = [];
        foreach ($pairs as [$key, $value]) {
            $first[$key] ??= $value;
        }
        $read = [];
        foreach ($this->names as $name => $parameter) {
            $read[$name] = $first[$parameter] ?? '';
        }
        $click = $this->clicks->in($pairs);
        if ($read['source'] !== '' || $read['medium'] !== '') {
            return $this->origin($read, $first, $click, How::Keys, []);
        }
        if ($click !== null) {
            $told = ['source' => $click[1], 'medium' => 'click-id'];

            return $this->origin($read, $first, $click, How::ClickId, $told);
        }
        $from = $this->referrers->of($view->referrer, $view->site, Hosts::of($view->url));
        if ($from !== null) {
            $told = ['source' => $from[0], 'medium' => $from[1]];

            return $this->origin($read, $first, null, How::Referrer, $told);
        }
        $told = $view->inApp && $view->referrer === ''
            ? ['source' => '(unknown)', 'medium' => '(none)']
            : Origin::UNTOLD;

        return $this->origin($read, $first, null, How::None, $told);
    }

    /**
     * @param array<string, string> $read by short name
     * @param array<string, string> $first by parameter
     * @param array{string, string}|null $click
     * @param array<string, string> $told what stands in for source and medium
     */
    private function origin(array $read, array $first, ?array $click, How $how, array $told): Origin
    {
        $keys = array_replace($read, $told);
        $asked = $keys + ['family' => $this->clicks->family($click[1] ?? null)];
        foreach ($this->others as $parameter) {
            $asked[$parameter] ??= $first[$parameter] ?? '';
        }
        $all = implode("\0", $asked);
        $this->channels = count($this->channels) > 20_000 ? [] : $this->channels;
        $channel = $this->channels[$all] ??= $this->channel($asked);

        return new Origin($keys, $how, $channel, $read, $click[0] ?? null, $click[1] ?? null);
    }

    /** @param array<string, string> $asked by what rules call it */
    private function channel(array $asked): string
    {
        $values = [];
        foreach ($asked as $name => $value) {
            $values[$this->rules->keys[$name] ?? $name] = $value;
        }

        return $this->rules->of($values)->channel;
    }
}
