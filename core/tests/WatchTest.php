<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Command\WatchCommand;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Watch\Attribution;
use Vestigon\Core\Watch\ClickKeys;
use Vestigon\Core\Watch\Days;
use Vestigon\Core\Watch\Event;
use Vestigon\Core\Watch\EventKind;
use Vestigon\Core\Watch\Hosts;
use Vestigon\Core\Watch\Instant;
use Vestigon\Core\Watch\Origins;
use Vestigon\Core\Watch\Referrers;

/** From events to reports. */
final class WatchTest extends TestCase
{
    private const EVENT = [
        'id' => '1',
        'site' => 'shop',
        'kind' => 'view',
        'at' => '2026-10-05T09:00:00Z',
        'url' => 'https://shop.example/',
    ];

    public function test_instants_are_those_of_phps_own_reader(): void
    {
        // RFC 3339 §5.8 gives the first three; the rest are random
        $texts = ['1985-04-12T23:20:50.52Z', '1996-12-19T16:39:57-08:00', '1937-01-01T12:00:27.87+00:20'];
        mt_srand(7);
        for ($i = 0; $i < 500; $i++) {
            $offset = sprintf('%s%02d:%02d', ['+', '-'][$i % 2], mt_rand(0, 13), mt_rand(0, 59));
            $zone = mt_rand(0, 1) === 0 ? 'Z' : $offset;
            $texts[] = gmdate('Y-m-d\TH:i:s', mt_rand(0, 2_000_000_000)).['', '.5', '.1234'][$i % 3].$zone;
        }
        foreach ($texts as $text) {
            $theirs = (new \DateTimeImmutable($text))->setTimezone(new \DateTimeZone('UTC'));
            $ours = Instant::read($text);
            self::assertNotNull($ours, $text);
            self::assertSame($theirs->format('Y-m-d\TH:i:s.v\Z'), Instant::text($ours), $text);
        }
    }

    public function test_keys_that_stand_in_a_url_more_than_once_are_known(): void
    {
        $twice = static fn (string $query): array => (new Origins(ChannelsReader::shipped()))
            ->of(new Event('1', 's', 0, EventKind::View, "https://shop.example/?{$query}"))
            ->twice;

        self::assertSame([], $twice('utm_source=a&utm_medium=b&a=1&a=2'));
        self::assertSame(['source'], $twice('utm_source=a&utm%5Fsource=a'));
        self::assertSame(['source', 'medium'], $twice('utm_medium&utm_source=a&utm_source=&utm_medium=b'));
        self::assertSame(['campaign'], $twice('utm_campaign=x&utm_campaign=y'), 'of who says nothing of a source');
    }

    public function test_a_stranger_from_another_of_ones_own_hosts_is_known(): void
    {
        $own = ['velmar.example', '*.isles.example'];
        foreach (
            [
                ['https://www.velmar.example/cars', 'https://book.isles.example/', 'velmar.example'],
                ['https://book.isles.example:8443/x', 'https://velmar.example/', 'book.isles.example'],
                ['https://velmar.example/cars', 'https://www.velmar.example/', ''],
                ['https://elsewhere.example/', 'https://velmar.example/', ''],
                ['https://velmar.example/', 'https://elsewhere.example/', ''],
                ['', 'https://velmar.example/', ''],
            ] as [$from, $to, $lost]
        ) {
            self::assertSame($lost, Hosts::goneOnFrom($from, $to, $own), "{$from} → {$to}");
        }
    }

    public function test_what_is_no_instant_is_none(): void
    {
        $none = [
            '',
            '2026-10-05',
            '2026-10-05T09:00:00',
            '2026-02-29T09:00:00Z',
            '2026-10-05T24:00:00Z',
            '2026-10-05T09:60:00Z',
            '2026-10-05T09:00:00+24:00',
            "2026-10-05T09:00:00Z\n",
        ];
        foreach ($none as $text) {
            self::assertNull(Instant::read($text), $text);
        }
    }

    public function test_days_are_the_time_zones_own_on_days_of_23_and_25_hours_too(): void
    {
        // Dublin puts its clocks forward on 2026-03-29 and back on 2026-10-25 (IANA time zone database)
        $days = new Days('Europe/Dublin');
        $hours = [];
        for ($at = (int) Instant::read('2026-03-28T00:00:00Z'); $at < 1_795_000_000_000; $at += 3_600_000) {
            $hours[$days->day($at)] = ($hours[$days->day($at)] ?? 0) + 1;
        }
        self::assertSame([23, 25, 24], [$hours['2026-03-29'], $hours['2026-10-25'], $hours['2026-10-26']]);
    }

    public function test_weeks_are_iso_8601s(): void
    {
        // ISO 8601: week 1 has the year's first Thursday; 2026-12-31 is a Thursday, so that year has 53
        self::assertSame('2026-W53', Days::week('2026-12-31'));
        self::assertSame('2026-W53', Days::week('2027-01-03'));
        self::assertSame('2027-W01', Days::week('2027-01-04'));
    }

    public function test_hosts_without_what_does_not_matter(): void
    {
        self::assertSame('shop.example', Hosts::of('HTTPS://me:pw@WWW.Shop.example:8443/a?b=//c'));
        self::assertSame('[2001:db8::1]', Hosts::of('https://[2001:db8::1]:81/x'));
        self::assertSame('org.post.example', Hosts::of('app://org.post.example/'));
        self::assertSame('', Hosts::of('mailto:somebody@shop.example'));
        self::assertTrue(Hosts::fits('*.seek.example', 'a.b.seek.example'));
        self::assertTrue(Hosts::fits('*.seek.example', 'seek.example'));
        self::assertFalse(Hosts::fits('*.seek.example', 'notseek.example'));
        self::assertFalse(Hosts::fits('seek.example', 'a.seek.example'));
    }

    public function test_an_app_that_says_so_is_unknown_and_a_way_station_is_nowhere(): void
    {
        $origins = new Origins(
            ChannelsReader::shipped(),
            new ClickKeys(),
            new Referrers([], [], ['*.pay.example']),
        );
        $view = static fn (string $referrer, bool $inApp): Event => new Event(
            '1',
            'shop',
            0,
            EventKind::View,
            'https://shop.example/',
            $referrer,
            inApp: $inApp,
        );
        self::assertSame('(unknown)', $origins->of($view('', true))->keys['source']);
        self::assertSame('(direct)', $origins->of($view('https://card.pay.example/back', false))->keys['source']);
    }

    public function test_click_ids_alone_are_counted_by_the_family_in_the_shipped_rules(): void
    {
        $origins = new Origins(
            ChannelsReader::shipped(),
            new ClickKeys(['a' => 'aid', 'b' => 'bid'], ['a' => 'search', 'b' => 'social']),
        );
        $channel = static fn (string $query): string => $origins->of(
            new Event('1', 'shop', 0, EventKind::View, "https://shop.example/?{$query}"),
        )->channel;
        self::assertSame('Paid search', $channel('aid=1'));
        self::assertSame('Paid social', $channel('bid=1'));
        self::assertSame('Direct', $channel('bid='));
    }

    public function test_what_is_split_adds_up(): void
    {
        self::assertSame([33, 33, 34], Attribution::split(100, 3));
        self::assertSame([-333, -334, -334], Attribution::split(-1001, 3));
        self::assertSame([0, 0, 1], Attribution::split(1, 3));
        foreach ([0, 1, 7, -7, 999_999] as $value) {
            foreach ([1, 2, 3, 10] as $parts) {
                self::assertSame($value, array_sum(Attribution::split($value, $parts)));
            }
        }
    }

    public function test_a_report_adds_up_to_its_total_whatever_it_is_by(): void
    {
        mt_srand(3);
        $events = [];
        for ($i = 0; $i < 600; $i++) {
            $kind = mt_rand(0, 4) === 0 ? 'convert' : 'view';
            $medium = ['cpc', 'email', ''][mt_rand(0, 2)];
            $events[] = [
                'id' => sprintf('%04d', $i),
                'site' => 'shop',
                'kind' => $kind,
                'at' => gmdate('Y-m-d\TH:i:s\Z', 1_790_000_000 + $i * mt_rand(60, 3000)),
                'url' => "https://shop.example/p?utm_medium={$medium}&utm_content=c".mt_rand(1, 4),
                'visitor' => 'v'.mt_rand(1, 9),
                ...$kind === 'convert'
                    ? [
                        'value' => mt_rand(1, 9999),
                        'currency' => ['EUR', 'SEK'][mt_rand(0, 1)],
                        'order' => "o{$i}",
                        'items' => self::someItems(),
                    ]
                    : [],
            ];
        }
        $ask = static fn (array $by): array => (new WatchCommand())->answer(
            new Cursor([
                'timeZone' => 'Europe/Dublin',
                'attribution' => ['model' => 'even', 'days' => 400],
                'events' => $events,
                'refunds' => [['site' => 'shop', 'order' => self::orderIn($events), 'value' => 100]],
                'report' => ['by' => $by],
            ]),
        )->document;
        $all = $ask([]);
        self::assertCount(1, $all['report']);
        $total = $all['report'][0];
        self::assertSame(
            count(array_filter($all['sessions'], static fn (array $s): bool => $s['views'] > 0)),
            $total['sessions'],
        );
        self::assertEqualsWithDelta(count($all['conversions']), $total['conversions'], 1e-9);
        self::assertSame(100, array_sum((array) $total['revenue']) - array_sum((array) $total['net']));
        $pivots = [['channel'], ['day', 'content'], ['month'], ['week', 'visitor'], ['source', 'medium', 'landing']];
        foreach ([...$pivots, ['item'], ['channel', 'item']] as $by) {
            $lines = $ask($by)['report'];
            self::assertGreaterThan(1, count($lines));
            foreach (['sessions', 'views', 'onePage', 'newVisitors'] as $measure) {
                self::assertSame($total[$measure], array_sum(array_column($lines, $measure)), implode(' ', $by));
            }
            self::assertEqualsWithDelta($total['conversions'], array_sum(array_column($lines, 'conversions')), 1e-9);
            foreach (['revenue', 'net'] as $money) {
                foreach (['EUR', 'SEK'] as $currency) {
                    self::assertSame(
                        $total[$money]->{$currency},
                        array_sum(array_map(static fn (array $l): int => $l[$money]->{$currency} ?? 0, $lines)),
                    );
                }
            }
        }
    }

    /** @return list<array<string, mixed>> */
    private static function someItems(): array
    {
        return array_map(
            static fn (): array => [
                'id' => 'i'.mt_rand(1, 5),
                'quantity' => mt_rand(1, 3),
                'value' => mt_rand(-50, 4000),
            ],
            array_fill(0, mt_rand(0, 3), null),
        );
    }

    public function test_figures_said_again_count_as_said_last_and_lie_beside_ads(): void
    {
        $figure = ['day' => '2026-10-05', 'node' => '7', 'impressions' => 10, 'clicks' => 3, 'cost' => 90];
        $answer = (new WatchCommand())->answer(
            new Cursor([
                'timeZone' => 'UTC',
                'platforms' => ['p' => 'pid'],
                'clicks' => ['k' => '7'],
                'events' => [['url' => 'https://shop.example/?pid=k'] + self::EVENT],
                'figures' => [
                    $figure + ['currency' => 'EUR'],
                    ['clicks' => 4, 'cost' => 100] + $figure + ['currency' => 'EUR'],
                ],
                'report' => ['by' => ['ad']],
            ]),
        )->document;
        $line = $answer['report'][0];
        self::assertSame(['7', 1, 4, 100], [$line['by']->ad, $line['sessions'], $line['clicks'], $line['cost']->EUR]);
        self::assertSame(25.0, (float) $line['rates']['costPerClick']->EUR);
        self::assertNull($line['rates']['costPerConversion']->EUR);
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function unusable(): iterable
    {
        yield 'no instant' => [['events' => [['at' => 'noon'] + self::EVENT]], 'events[0].at'];
        yield 'no kind' => [['events' => [self::EVENT, ['kind' => 'look'] + self::EVENT]], 'events[1].kind'];
        yield 'a value of no currency' => [['events' => [self::EVENT + ['value' => 5]]], 'events[0].currency'];
        yield 'a value with decimals' => [['events' => [self::EVENT + ['value' => 5.5]]], 'events[0].value'];
        yield 'days without number' => [['events' => [], 'attribution' => ['days' => 401]], 'attribution.days'];
        yield 'no such zone' => [
            ['events' => [], 'timeZone' => 'Mars/Base', 'report' => ['by' => []]],
            'timeZone',
        ];
        yield 'figures by channel' => [
            ['events' => [], 'timeZone' => 'UTC', 'figures' => [], 'report' => ['by' => ['channel']]],
            'figures',
        ];
    }

    /** @param array<string, mixed> $request */
    #[DataProvider('unusable')]
    public function test_what_cant_be_used_is_named_with_its_place(array $request, string $place): void
    {
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage($place);
        (new WatchCommand())->answer(new Cursor($request));
    }

    public function test_lines_out_of_order_are_refused_with_their_number(): void
    {
        $lines = array_map(
            static fn (string $at): string => json_encode(['at' => $at, 'id' => $at] + self::EVENT)."\n",
            ['2026-10-05T09:00:01Z', '2026-10-05T09:00:00Z'],
        );
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('line 2');
        (new WatchCommand())->stream(new Cursor(['timeZone' => 'UTC']), $lines, fopen('php://memory', 'w+'));
    }

    /** @param list<array<string, mixed>> $events */
    private static function orderIn(array $events): string
    {
        return array_values(array_filter(array_column($events, 'order')))[0];
    }
}
