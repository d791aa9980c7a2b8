<?php

declare(strict_types=1);

// Times the core as ratios, all sides in one run, the median of several rounds.

use League\Uri\Modifier;
use League\Uri\UriTemplate;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\TraceRequest;

require dirname(__DIR__, 2).'/vendor/autoload.php';

const ROUNDS = 9;
const CLICKS = 20_000;

$request = TraceRequest::read(
    new Cursor([
        'dialect' => 'northquay-search',
        'path' => [
            [
                'level' => 'account',
                'id' => 'A-410',
                'name' => 'Velmar Ferries',
                'slots' => [
                    'template' => '{landing}?utm_source=northquay&utm_medium=cpc&utm_campaign={campaign.id}'
                        .'&utm_term={term}&utm_content={ad.id}&mt={match}',
                ],
            ],
            ['level' => 'campaign', 'id' => '71', 'name' => 'Island Hopper 2027', 'type' => 'text'],
            ['level' => 'group', 'id' => '702', 'name' => 'Foot passengers'],
            [
                'level' => 'ad',
                'id' => '7031',
                'name' => 'Deck chairs',
                'slots' => ['landing' => 'https://velmar.example/book?lang=en'],
            ],
        ],
    ]),
    Shipped::dialect(...),
);
$route = Route::of($request->path, $request->settings, $request->hops);

$contexts = [];
for ($i = 0; $i < 500; $i++) {
    $contexts[] = [
        'keyword.text' => "ferry to {$i} skerry & back",
        'keyword.match' => ['exact', 'phrase', 'broad'][$i % 3],
        'device' => 'mobile',
        'network' => 'search',
        'click.id' => "Q7f-{$i}",
    ];
}
$spelled = ['exact' => 'e', 'phrase' => 'p', 'broad' => 'b'];
$landing = 'https://velmar.example/book?lang=en';
$ids = ['71', '7031'];
$template = new UriTemplate(
    '?utm_source=northquay&utm_medium=cpc&utm_campaign={campaign}&utm_term={term}&utm_content={ad}&mt={match}',
);

$byHand = static fn (array $c): string => $landing
    .'&nqcid='
    .rawurlencode($c['click.id'])
    .'&utm_source=northquay&utm_medium=cpc&utm_campaign='
    .rawurlencode($ids[0])
    .'&utm_term='
    .rawurlencode($c['keyword.text'])
    .'&utm_content='
    .rawurlencode($ids[1])
    .'&mt='
    .rawurlencode($spelled[$c['keyword.match']]);
$byLibraries = static function (array $c) use ($template, $landing, $ids, $spelled): string {
    $query = (string) $template->expand([
        'campaign' => $ids[0],
        'term' => $c['keyword.text'],
        'ad' => $ids[1],
        'match' => $spelled[$c['keyword.match']],
    ]);

    return (string) Modifier::from($landing)
        ->appendQuery('nqcid='.rawurlencode($c['click.id']))
        ->appendQuery(substr($query, 1))
        ->getUri();
};
$clickUrl = $route->clickUrl(...);
$trace = $route->trace(...);

foreach ($contexts as $c) {
    if (
        $byHand($c) !== $clickUrl($c)
        || $trace($c)->clickUrl !== $clickUrl($c)
        || $byLibraries($c) !== $clickUrl($c)
    ) {
        fwrite(
            STDERR,
            "the sides do not compute the same:\n{$byHand($c)}\n{$clickUrl($c)}\n{$byLibraries($c)}\n",
        );
        exit(1);
    }
}

/** Seconds for a number of clicks. */
$time = static function (Closure $side, int $clicks) use ($contexts): float {
    $start = hrtime(true);
    for ($i = 0; $i < $clicks; $i++) {
        $side($contexts[$i % 500]);
    }

    return (hrtime(true) - $start) / 1e9 / $clicks;
};
$ratios = ['url' => [], 'trace' => [], 'libraries' => []];
for ($round = 0; $round < ROUNDS; $round++) {
    $hand = $time($byHand, CLICKS);
    $url = $time($clickUrl, CLICKS);
    $ratios['url'][] = $url / $hand;
    $ratios['trace'][] = $time($trace, CLICKS) / $hand;
    $ratios['libraries'][] = $time($byLibraries, (int) (CLICKS / 20)) / $url;
}
$median = static function (array $values): float {
    sort($values);

    return $values[intdiv(count($values), 2)];
};
$report = static fn (string $what, float $ratio, string $goal, bool $met): string => sprintf(
    "%-74s %8.1f   %-14s %s\n",
    $what,
    $ratio,
    $goal,
    $met ? 'met' : 'MISSED',
);
$results = [
    [
        'click URL, times concatenation by hand',
        $median($ratios['url']),
        'at most 5',
        $median($ratios['url']) <= 5,
    ],
    [
        'whole trace, times concatenation by hand',
        $median($ratios['trace']),
        'at most 20',
        $median($ratios['trace']) <= 20,
    ],
    [
        'template and URI libraries, times click URL',
        $median($ratios['libraries']),
        'at least 20',
        $median($ratios['libraries']) >= 20,
    ],
];
foreach ($results as [$what, $ratio, $goal, $met]) {
    echo $report($what, $ratio, $goal, $met);
}
exit(in_array(false, array_column($results, 3), true) ? 1 : 0);
