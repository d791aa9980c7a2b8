<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Command\WatchCommand;
use Vestigon\Core\Document\Cursor;

/** Random stories, as the product reads them event by event, and as they read when taken definition by definition. */
final class StoriesTest extends TestCase
{
    private const CHANNELS = [
        'format' => 'vestigon.channels/1',
        'title' => 'for random stories',
        'keys' => ['source' => 'utm_source', 'medium' => 'utm_medium', 'campaign' => 'utm_campaign'],
        'rules' => [['channel' => 'Paid', 'all' => [['key' => 'medium', 'in' => ['cpc', 'click-id']]]]],
        'otherwise' => 'Other',
    ];

    private const QUERIES = [
        '',
        '?q=1',
        '?utm_source=a&utm_medium=cpc&utm_campaign=x',
        '?utm_source=a&utm_medium=cpc&utm_campaign=y',
        '?utm_source=a&utm_medium=cpc&utm_campaign=x&aid=K1',
        '?utm_source=a&utm_medium=cpc&utm_campaign=x&aid=K2',
        '?utm_campaign=x',
        '?aid=K1',
        '?bid=&aid=K2',
        '?bid=K3&aid=K1',
        '?utm_medium=email',
    ];

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 20) as $seed) {
            yield "stories from seed {$seed}" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_sessions_and_shares_are_those_of_the_definitions(int $seed): void
    {
        mt_srand($seed);
        for ($n = 0; $n < 200; $n++) {
            $events = self::story();
            $model = ['last', 'first', 'even'][mt_rand(0, 2)];
            $days = [1, 7, 30][mt_rand(0, 2)];
            $ads = mt_rand(0, 1) === 1 ? ['K9' => '77'] : [];
            $answer = (new WatchCommand())->answer(
                new Cursor([
                    'channels' => self::CHANNELS,
                    'platforms' => ['alpha' => 'aid', 'beta' => 'bid'],
                    'timeZone' => 'UTC',
                    'attribution' => ['model' => $model, 'days' => $days],
                    'clicks' => $ads,
                    'events' => array_map(static fn (array $e): array => array_diff_key($e, ['ms' => 1]), $events),
                ]),
            )->document;

            $sessions = StoriesByHand::sessions($events, self::origin(...));
            self::assertSame(
                array_map(static fn (array $s): array => array_column($s, 'id'), $sessions),
                array_column($answer['sessions'], 'events'),
            );
            $shares = StoriesByHand::shares($events, $sessions, self::origin(...), $model, $days, $ads);
            self::assertSame(array_values($shares), array_column($answer['conversions'], 'shares'));
        }
    }

    /**
     * @param array<string, mixed> $view
     * @return array{tracked: bool, click: string|null, read: list<string>}
     */
    private static function origin(array $view): array
    {
        parse_str((string) parse_url($view['url'], PHP_URL_QUERY), $q);
        $click = null;
        foreach ($q as $key => $value) {
            $click ??= in_array($key, ['aid', 'bid'], true) && $value !== '' ? $value : null;
        }
        $read = [$q['utm_source'] ?? '', $q['utm_medium'] ?? '', $q['utm_campaign'] ?? ''];

        return ['tracked' => $read[0] !== '' || $read[1] !== '' || $click !== null, 'click' => $click, 'read' => $read];
    }

    /** @return list<array<string, mixed>> in no order, some twice */
    private static function story(): array
    {
        $events = [];
        $at = 1_790_000_000_000;
        for ($i = 0, $n = mt_rand(1, 25); $i < $n; $i++) {
            $minutes = [0, 0, 1, 5, 29, 30, 31, 1440, 10_080][mt_rand(0, 8)];
            $at += $minutes * 60_000 + [0, 0, 1][mt_rand(0, 2)];
            $event = [
                'id' => sprintf('%02d', mt_rand(0, 99)),
                'site' => ['one', 'one', 'two'][mt_rand(0, 2)],
                'at' => gmdate('Y-m-d\TH:i:s', intdiv($at, 1000)).sprintf('.%03dZ', $at % 1000),
                'ms' => $at,
                'kind' => mt_rand(0, 3) > 0 ? 'view' : 'convert',
                'url' => 'https://shop.example/'.self::QUERIES[mt_rand(0, count(self::QUERIES) - 1)],
                'visitor' => ['a', 'a', 'b', ''][mt_rand(0, 3)],
            ];
            if ($event['kind'] === 'convert') {
                $event += ['value' => mt_rand(-500, 2000), 'currency' => 'EUR'];
                $event += mt_rand(0, 3) === 0 ? ['order' => (string) mt_rand(1, 3)] : [];
                $event += mt_rand(0, 3) === 0 ? ['click' => ['K1', 'K2', 'K9'][mt_rand(0, 2)]] : [];
                $event += mt_rand(0, 9) === 0 ? ['test' => true] : [];
            }
            $events[] = $event;
            if (mt_rand(0, 9) === 0) {
                $events[] = $event;
            }
        }
        // ids of one site at one instant tell the order; of two sites they may be the same, which tells none
        $events = array_values(
            array_filter(
                $events,
                static fn (array $e): bool => array_filter(
                    $events,
                    static fn (array $o): bool => $o['site'] !== $e['site']
                        && $o['id'] === $e['id']
                        && $o['ms'] === $e['ms'],
                ) === [],
            ),
        );
        for ($i = count($events) - 1; $i > 0; $i--) {
            $other = mt_rand(0, $i);
            [$events[$i], $events[$other]] = [$events[$other], $events[$i]];
        }

        return $events;
    }
}
