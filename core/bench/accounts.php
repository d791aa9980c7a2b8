<?php

declare(strict_types=1);

// Checking accounts of 10,000, 100,000 and 1,000,000 ads with 2,000 different texts, row by row, against a plain pass
// over the same rows: reading each row from its file, decoding it and making it a node. Both sides take turns, a
// thousand rows each.

use Vestigon\Core\Account\Node;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Proof\Survey;

require __DIR__.'/lib.php';
require __DIR__.'/sample.php';

const TURN = 1000;

$plan = Sample::plan();
$rules = RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped());

$perAd = [];
foreach ([10_000, 100_000, 1_000_000] as $ads) {
    $file = tmpfile() ?: exit(1);
    for ($i = 0; $i < $ads; $i++) {
        fwrite($file, json_encode(Sample::row($i), JSON_THROW_ON_ERROR)."\n");
    }
    rewind($file);
    $account = Sample::wide($ads);
    gc_collect_cycles();
    memory_reset_peak_usage();
    $before = memory_get_usage();
    $start = Bench::cpu();
    $survey = new Survey($account, $plan, $rules);
    $check = Bench::cpu() - $start;
    $plain = 0.0;
    $groups = [];
    for ($read = 0; $read < $ads; $read += TURN) {
        $at = (int) ftell($file);
        $start = Bench::cpu();
        for ($i = 0; $i < TURN; $i++) {
            $r = json_decode((string) fgets($file), true);
            $node = new Node('ad', $r['id'], $r['name'], null, $r['slots']);
            $groups[$r['parent']] = ($groups[$r['parent']] ?? 0) + strlen($node->slots['landing']);
        }
        $middle = Bench::cpu();
        $plain += $middle - $start;
        fseek($file, $at);
        $middle = Bench::cpu();
        for ($i = 0; $i < TURN; $i++) {
            $r = json_decode((string) fgets($file), true);
            $survey->ad(new Node('ad', $r['id'], $r['name'], null, $r['slots']), $r['parent']);
        }
        $check += Bench::cpu() - $middle;
    }
    $start = Bench::cpu();
    $found = count($survey->findings()) + count($survey->counterexamples());
    $check += Bench::cpu() - $start;
    $memory = (memory_get_peak_usage() - $before) / 1e6;
    $states = $survey->states();
    if (array_sum($states) !== $ads || $found === 0 || ($states['broken'] ?? 0) !== intdiv($ads * 6, 100)) {
        fwrite(STDERR, 'the check did not find what is there: '.json_encode($states)."\n");
        exit(1);
    }
    $perAd[] = $check / $ads;
    $what = number_format($ads).' ads, '.number_format(Sample::TEXTS).' texts';
    if ($ads === 1_000_000) {
        Bench::report(
            "check of {$what}, times a plain pass over the same rows",
            $check / $plain,
            'at most 3',
            $check / $plain <= 3,
        );
        Bench::report(
            "check of {$what}, MB of memory with all that stands above them",
            $memory + 1,
            'under 512',
            $memory < 512,
        );
    } else {
        printf("%-74s %8.2f\n", "check of {$what}, times a plain pass over the same rows", $check / $plain);
    }
    fclose($file);
}
Bench::report(
    'time per ad of a million, times that of a hundred thousand',
    $perAd[2] / $perAd[1],
    'at most 1.2',
    $perAd[2] <= 1.2 * $perAd[1],
);
Bench::end();
