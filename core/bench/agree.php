<?php

declare(strict_types=1);

// Times names held against patterns, and arrivals counted in channels, against the same done by hand; both sides in
// turn, the median of several rounds, per million.

use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Naming\Patterns;

require __DIR__.'/lib.php';

const MANY = 200_000;
const ROUNDS = 7;
const MOST = 3.0;

/** @param array<string, Closure(): int> $sides first ours, then the one by hand; both count the same */
function ratio(string $what, array $sides): float
{
    $ratios = [];
    for ($round = 0; $round < ROUNDS; $round++) {
        $seconds = $counts = [];
        foreach ($sides as $side => $run) {
            $start = Bench::cpu();
            $counts[$side] = $run();
            $seconds[$side] = Bench::cpu() - $start;
        }
        if (count(array_unique($counts)) !== 1) {
            fwrite(STDERR, "{$what}: the sides do not count the same: ".json_encode($counts)."\n");
            exit(1);
        }
        $ratios[] = $seconds['ours'] / $seconds['by hand'];
    }

    return Bench::median($ratios);
}

// twenty patterns, each for campaigns of a type of its own; all but the last two are for other platforms
$document = [];
for ($i = 0; $i < 20; $i++) {
    $document[] = [
        'format' => 'vestigon.naming/1',
        'separator' => '_',
        'for' => $i < 18 ? ['platforms' => ["p{$i}"]] : ['types' => [['text', 'video'][$i - 18]]],
        'parts' => [
            ['name' => 'market', 'words' => ['uk', 'ie', 'fr', 'de', 'se', 'no', 'dk', 'nl']],
            ['name' => 'aim', 'words' => ['brand', 'sale', 'season', 'return']],
            ['name' => 'free'],
        ],
    ];
}
$patterns = Patterns::read(new Cursor($document));
$northquay = Shipped::dialect('northquay-search') ?? exit(1);
$names = [];
mt_srand(12);
for ($i = 0; $i < MANY; $i++) {
    $names[] = ['uk', 'ie', 'fr', 'xx'][mt_rand(0, 3)].'_'.['brand', 'sale', 'Sale'][mt_rand(0, 2)]."_island {$i}";
}
$market = array_fill_keys(['uk', 'ie', 'fr', 'de', 'se', 'no', 'dk', 'nl'], true);
$aim = array_fill_keys(['brand', 'sale', 'season', 'return'], true);
$named = ratio('names', [
    'ours' => static function () use ($names, $patterns, $northquay): int {
        $fit = 0;
        foreach ($names as $name) {
            $fit += (int) ($patterns->for($northquay, 'campaign', 'text')?->parts($name) !== null);
        }

        return $fit;
    },
    'by hand' => static function () use ($names, $market, $aim): int {
        $fit = 0;
        foreach ($names as $name) {
            $parts = explode('_', $name);
            $values = ['market' => $parts[0], 'aim' => $parts[1] ?? '', 'free' => $parts[2] ?? ''];
            $fit += (int) (count($parts) === 3 && isset($market[$values['market']], $aim[$values['aim']]));
        }

        return $fit;
    },
]);
Bench::report('names read into parts by 20 patterns, times a pass that splits them', $named, '<= 3', $named <= MOST);

// thirty rules, the ones that hold far down among them
$rules = [];
for ($i = 0; $i < 28; $i++) {
    $rules[] = ['channel' => "Channel {$i}", 'all' => [
        ['key' => 'source', 'in' => ["source-{$i}", "other-{$i}"]],
        ['key' => 'medium', 'in' => ['cpc', 'paid']],
    ]];
}
$rules[] = ['channel' => 'Paid', 'all' => [['key' => 'medium', 'in' => ['cpc', 'ppc', 'paid']]]];
$rules[] = ['channel' => 'E-mail', 'all' => [['key' => 'medium', 'in' => ['email', 'e-mail']]]];
$channels = ChannelsReader::read(
    new Cursor([
        'format' => ChannelsReader::FORMAT,
        'title' => 'for the bench',
        'keys' => ['source' => 'utm_source', 'medium' => 'utm_medium'],
        'rules' => $rules,
        'otherwise' => 'Other',
    ]),
);
$arrivals = [];
for ($i = 0; $i < MANY; $i++) {
    $arrivals[] = [
        'utm_source' => mt_rand(0, 1) === 0 ? 'source-'.mt_rand(0, 27) : 'Somewhere',
        'utm_medium' => ['CPC', 'email', 'referral'][mt_rand(0, 2)],
    ];
}
$tests = '';
foreach ($rules as $i => $rule) {
    $tests .= implode(' && ', array_map(
        static fn (array $t): string => 'in_array($'.$t['key'].', '.var_export($t['in'], true).', true)',
        $rule['all'],
    )).' => '.$i.",\n";
}
$match = eval("return static function (array \$v): int {
    \$source = mb_strtolower(\$v['utm_source']);
    \$medium = mb_strtolower(\$v['utm_medium']);
    return match (true) { {$tests} default => -1 };
};");
$counted = ratio('channels', [
    'ours' => static function () use ($arrivals, $channels): int {
        $sum = 0;
        foreach ($arrivals as $values) {
            $sum += $channels->of($values)->rule ?? -1;
        }

        return $sum;
    },
    'by hand' => static function () use ($arrivals, $match): int {
        $sum = 0;
        foreach ($arrivals as $values) {
            $sum += $match($values);
        }

        return $sum;
    },
]);
Bench::report('arrivals counted by 30 rules, times the same tests by hand', $counted, '<= 3', $counted <= MOST);
Bench::end();
