<?php

declare(strict_types=1);

namespace Standins\Crowd;

use Standins\Sites\Hopgate;
use Standins\Store;

/**
 * A day of this small world: who clicks which ad, who comes by themselves, what becomes of them. What is to be is
 * written down with the instant at which it is.
 */
final class Day
{
    /** Shares of those who click and are never seen: gone before the page loads, scripts blocked, no consent. */
    private const UNSEEN = ['left' => 0.06, 'blocked' => 0.04, 'withheld' => 0.05];

    /** How many come by themselves, by site. */
    private const BY_THEMSELVES = ['velmar' => 170, 'ninefold' => 110];

    private const FROM = [
        ['https://search.example/', 42],
        ['https://www.findery.example/q', 9],
        ['https://islandguide.example/ferries', 7],
        ['https://clockforum.example/thread/88', 4],
        ['', 30],
        ['letter', 8],
    ];

    /** By hour of the day: how busy it is. */
    private const HOURS = [2, 1, 1, 1, 1, 2, 4, 6, 8, 9, 9, 9, 10, 9, 8, 8, 8, 9, 10, 12, 13, 11, 7, 4];

    /** @var array<string, int> views of people who do not consent, by site and day */
    private array $withheld = [];

    /** @var array<string, int> what the tracker has passed on, by site */
    private array $passed = [];

    private readonly int $begin;

    private readonly Notebook $notes;

    /** @param string $day YYYY-MM-DD */
    public function __construct(private readonly Store $store, private readonly People $people, string $day)
    {
        $this->begin = (int) strtotime("{$day}T00:00:00Z") * 1000;
        $this->notes = new Notebook($store);
    }

    /** @param list<Advert> $adverts */
    public function happens(array $adverts): void
    {
        $mood = $this->mood();
        foreach ($adverts as $advert) {
            $chance = $this->people->chance("{$this->date()} {$advert->platform->host} {$advert->id}");
            $clicks = $chance->times($advert->draw * $mood);
            if ($clicks === 0 && ! $chance->happens(0.2)) {
                continue;
            }
            $this->notes->shown(
                $advert,
                $this->date(),
                (int) ((($clicks + $chance->share()) / $chance->between(8, 45)) * 1000),
            );
            for ($i = 0; $i < $clicks; $i++) {
                $this->clicks($advert, $chance);
            }
        }
        foreach (self::BY_THEMSELVES as $site => $many) {
            $chance = $this->people->chance("{$this->date()} {$site}");
            for ($i = $chance->times($many * $mood); $i > 0; $i--) {
                $this->comes($site, $chance);
            }
        }
        foreach ($this->withheld as $of => $n) {
            [$site, $day] = explode(' ', $of);
            $this->store->run(
                'insert into withheld values (?, ?, ?) on conflict do update set n = n + excluded.n',
                [$site, $day, $n],
            );
        }
        foreach ($this->passed as $site => $n) {
            $this->store->run(
                'insert into passed values (?, ?, ?) on conflict do update set n = n + excluded.n',
                [$site, $this->date(), $n],
            );
        }
    }

    private function clicks(Advert $advert, Chance $chance): void
    {
        $click = $advert->click($chance);
        $at = $this->some($chance);
        $fate = $this->fate($chance);
        $this->notes->click(
            $advert,
            $click,
            $at,
            max(1, (int) ($advert->price * (0.6 + 0.8 * $chance->share()))),
            $chance->happens(0.08) ? $chance->between(1, 2) : 0,
            $fate,
        );
        $url = $click['url'];
        if (str_starts_with($url, 'http://hopgate.')) {
            $this->passed[$advert->site] = ($this->passed[$advert->site] ?? 0) + 1;
            $url = Hopgate::onward((string) parse_url($url, PHP_URL_QUERY), 'H'.$chance->between(1000, 999_999));
        }
        if ($fate === 'withheld') {
            $of = "{$advert->site} {$this->date()}";
            $this->withheld[$of] = ($this->withheld[$of] ?? 0) + 1;
        }
        if ($fate !== 'arrived' || $url === null) {
            return;
        }
        $visitor = $chance->word();
        $root = $this->people->root($advert->site);
        $visit = new Visit($chance, $advert->site, $root, $at);
        $visit->lands($url, '', 0.035);
        $this->notes->visit($visit, $advert->site, $visitor, $click['device']);
        $order = $visit->order;
        if ($order === null && $chance->happens(0.22)) {
            // back after some days, by themselves
            $again = new Visit($chance, $advert->site, $root, $at + $chance->between(3_600_000, 20 * 86_400_000));
            $again->lands("{$root}/", $chance->happens(0.6) ? '' : 'https://search.example/', 0.09);
            $this->notes->visit($again, $advert->site, $visitor, $click['device']);
            $order = $again->order;
        }
        if ($order === null && $chance->happens(0.006)) {
            $order = $this->callsInstead($advert, $chance, $click['id'], $root, $at);
        }
        if ($order !== null) {
            $this->notes->claim($advert, $this->date(), $order['at'] + 3_600_000, $order['value']);
            $this->mayBringBack($advert->site, $order, $chance);
        }
    }

    /**
     * They book on the phone; the office hands it in days later, with the click.
     *
     * @return array{id: string, value: int, at: int}
     */
    private function callsInstead(Advert $advert, Chance $chance, string $click, string $root, int $at): array
    {
        $items = Pages::basket($advert->site, $chance);
        $order = [
            'id' => 'T'.$chance->word(),
            'value' => array_sum(array_column($items, 'value')),
            'at' => $at + $chance->between(3_600_000, 3 * 86_400_000),
        ];
        $this->notes->coming(
            $order['at'] + $chance->between(1, 9) * 86_400_000,
            $order['at'],
            $root.'/',
            '',
            $advert->site,
            null,
            null,
            [
                'kind' => 'convert',
                'name' => 'phone booking',
                'order' => $order['id'],
                'click' => $click,
                'value' => $order['value'],
                'currency' => 'EUR',
                'items' => $items,
            ],
        );

        return $order;
    }

    /** Somebody comes without having been paid for. */
    private function comes(string $site, Chance $chance): void
    {
        $root = $this->people->root($site);
        $which = $chance->between(1, array_sum(array_column(self::FROM, 1)));
        foreach (self::FROM as [$from, $share]) {
            if (($which -= $share) <= 0) {
                break;
            }
        }
        $url = $root.Pages::any($site, $chance);
        if ($from === 'letter') {
            $url .= '?utm_source=letter&utm_medium=email&utm_campaign='.substr($this->date(), 0, 7);
            $from = '';
        }
        $visit = new Visit($chance, $site, $root, $this->some($chance));
        $visit->lands($url, $from, 0.022);
        $this->notes->visit(
            $visit,
            $site,
            $chance->happens(0.06) ? null : $chance->word(),
            $chance->oneOf(['mobile', 'desktop']),
        );
        if ($visit->order !== null) {
            $this->mayBringBack($site, $visit->order, $chance);
        }
    }

    /** @param array{id: string, value: int, at: int} $order */
    private function mayBringBack(string $site, array $order, Chance $chance): void
    {
        if ($chance->happens(0.05)) {
            $this->notes->refund(
                $site,
                $order['id'],
                $order['at'] + $chance->between(2, 12) * 86_400_000,
                $chance->happens(0.6) ? $order['value'] : intdiv($order['value'], 2),
            );
        }
    }

    private function fate(Chance $chance): string
    {
        $at = $chance->share();
        foreach (self::UNSEEN as $fate => $share) {
            if (($at -= $share) < 0) {
                return $fate;
            }
        }

        return 'arrived';
    }

    /** How busy it is, against an ordinary day: weekends are, and it has grown. */
    private function mood(): float
    {
        $weekday = (int) gmdate('N', intdiv($this->begin, 1000));

        return [1 => 0.94, 0.9, 0.92, 0.98, 1.05, 1.14, 1.2][$weekday] *
            (0.85 + 0.3 * $this->people->howFar($this->begin)) *
            (0.9 + 0.2 * $this->people->chance("mood {$this->date()}")->share());
    }

    /** Some instant of the day. */
    private function some(Chance $chance): int
    {
        $at = $chance->between(1, array_sum(self::HOURS));
        foreach (self::HOURS as $hour => $share) {
            if (($at -= $share) <= 0) {
                break;
            }
        }

        return $this->begin + $hour * 3_600_000 + $chance->between(0, 3_599_999);
    }

    private function date(): string
    {
        return gmdate('Y-m-d', intdiv($this->begin, 1000));
    }
}
