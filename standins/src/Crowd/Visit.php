<?php

declare(strict_types=1);

namespace Standins\Crowd;

/** One person on one site: what they look at, what they buy, whether they come back. Times are in milliseconds. */
final class Visit
{
    private const PAYING = 'https://pay.tollbridge.example/secure';

    /** @var list<array{at: int, url: string, referrer: string, detail: array<string, mixed>|null}> */
    public array $seen = [];

    /** @var array{id: string, value: int, at: int}|null */
    public ?array $order = null;

    public function __construct(
        private readonly Chance $chance,
        private readonly string $site,
        private readonly string $root,
        private int $now,
    ) {}

    /** They land, look around, and buy with that chance. */
    public function lands(string $url, string $referrer, float $buys): void
    {
        $this->sees($url, $referrer);
        if ($this->chance->happens(0.03)) {
            $this->passes(2, 30);
            $this->sees($url, $referrer); // loaded again
        }
        $at = strtok($url, '?#') ?: $url;
        $buying = $this->chance->happens($buys);
        while ($this->chance->happens($buying ? 0.7 : 0.42) && count($this->seen) < 9) {
            $this->passes(8, 240);
            $next = $this->root.Pages::any($this->site, $this->chance);
            $this->sees($next, $at);
            $at = $next;
        }
        if ($buying) {
            $this->buys($at);
        }
    }

    public function passes(int $least, int $most): void
    {
        $this->now += $this->chance->between($least * 1000, $most * 1000);
    }

    public function now(): int
    {
        return $this->now;
    }

    private function buys(string $at): void
    {
        $this->passes(20, 120);
        $this->sees("{$this->root}/book", $at);
        $this->passes(60, 300);
        $this->sees("{$this->root}/thanks", self::PAYING);
        $items = Pages::basket($this->site, $this->chance);
        $value = array_sum(array_column($items, 'value'));
        $this->now += $this->chance->between(200, 900);
        $this->order = [
            'id' => strtoupper(substr($this->site, 0, 1)).$this->chance->word(),
            'value' => $value,
            'at' => $this->now,
        ];
        $bought = [
            'kind' => 'convert',
            'name' => 'booking',
            'order' => $this->order['id'],
            'value' => $value,
            'currency' => 'EUR',
            'items' => $items,
        ];
        $this->sees("{$this->root}/thanks", self::PAYING, $bought);
        if ($this->chance->happens(0.04)) {
            $this->passes(3, 60);
            $this->sees("{$this->root}/thanks", self::PAYING, $bought); // the last page is loaded again
        }
    }

    /** @param array<string, mixed>|null $detail */
    private function sees(string $url, string $referrer, ?array $detail = null): void
    {
        $this->seen[] = ['at' => $this->now, 'url' => $url, 'referrer' => $referrer, 'detail' => $detail];
    }
}
