<?php

declare(strict_types=1);

// Times ./vestigon watch on a file of events against a pass that decodes each and splits its URL: whole processes, in
// turn, the median of three rounds; and tells how much memory it took at most.

use Vestigon\Core\Url\Query;

require __DIR__.'/lib.php';

const EVENTS = 1_000_000;
const ROUNDS = 3;
const MOST_TIMES = 4.0;
const MOST_MEMORY = 512; // megabytes

if (($argv[1] ?? '') === 'split') {
    $pairs = 0;
    foreach (new SplFileObject($argv[2]) as $line) {
        $pairs += $line === '' ? 0 : count(Query::read(json_decode($line, true)['url']));
    }
    echo $pairs, "\n";
    exit(0);
}

$file = tempnam(sys_get_temp_dir(), 'events') ?: exit(1);
register_shutdown_function(static fn () => @unlink($file));
$out = fopen($file, 'w') ?: exit(1);
mt_srand(13);
$at = 1_780_000_000_000;
$here = []; // forty visitors at a time, who look at four pages each
for ($i = 0; $i < EVENTS; $i++) {
    $at += mt_rand(0, 15_000); // ninety days of it
    $converts = mt_rand(0, 30) === 0;
    $place = mt_rand(0, 39);
    $isClick = ! isset($here[$place]) || mt_rand(0, 3) === 0;
    $here[$place] = $isClick ? 'v'.mt_rand(1, 200_000) : $here[$place];
    $event = [
        'id' => sprintf('e%07d', $i),
        'site' => 'shop',
        'kind' => $converts ? 'convert' : 'view',
        'at' => gmdate('Y-m-d\TH:i:s', intdiv($at, 1000)).sprintf('.%03dZ', $at % 1000),
        'url' => 'https://shop.example/book/'.mt_rand(1, 50)
            .($isClick
                ? '?lang=en&utm_source=northquay&utm_medium=cpc&utm_campaign=c'.mt_rand(1, 300)
                    ."&utm_content=ad%20{$i}&utm_term=ferry+to+the+islands&nqcid=q{$i}"
                : ''),
        'referrer' => $isClick ? 'https://www.seek.example/find?q=ferry' : 'https://shop.example/book',
        'visitor' => $here[$place],
    ];
    $event += $converts ? ['value' => mt_rand(100, 99_999), 'currency' => 'EUR', 'order' => "o{$i}"] : [];
    fwrite($out, json_encode($event, JSON_UNESCAPED_SLASHES)."\n");
}
fclose($out);

/** @return array{float, float} processor seconds, and megabytes at most */
function run(string $command, string $in): array
{
    $process = proc_open(['/bin/sh', '-c', $command], [['pipe', 'r'], ['file', '/dev/null', 'w'], STDERR], $pipes);
    fwrite($pipes[0], $in);
    fclose($pipes[0]);
    $before = getrusage(1);
    proc_close($process) === 0 || exit("{$command} failed\n");
    $after = getrusage(1);
    $seconds = static fn (array $u): float => $u['ru_utime.tv_sec'] + $u['ru_stime.tv_sec']
        + ($u['ru_utime.tv_usec'] + $u['ru_stime.tv_usec']) / 1e6;

    return [$seconds($after) - $seconds($before), $after['ru_maxrss'] / 1024];
}

$request = json_encode([
    'platforms' => ['northquay-search' => 'nqcid'],
    'referrers' => [['host' => '*.seek.example', 'source' => 'seek', 'medium' => 'organic']],
    'timeZone' => 'Europe/Dublin',
    'attribution' => ['model' => 'even', 'days' => 30],
    'report' => ['by' => ['channel', 'day']],
]);
$watch = 'exec php '.escapeshellarg(dirname(__DIR__).'/bin/vestigon.php').' watch --events '.escapeshellarg($file);
$split = 'exec php '.escapeshellarg(__FILE__).' split '.escapeshellarg($file);
$ratios = [];
$memory = 0.0;
for ($i = 0; $i < ROUNDS; $i++) {
    [$theirs] = run($split, '');
    [$ours, $most] = run($watch, $request);
    $ratios[] = $ours / $theirs;
    $memory = max($memory, $most);
}
$ratio = Bench::median($ratios);
Bench::report('a million events watched, times decoding them and splitting URLs', $ratio, '<= 4', $ratio <= MOST_TIMES);
Bench::report('the most memory that took, MB', $memory, '<= 512', $memory <= MOST_MEMORY);
Bench::end();
