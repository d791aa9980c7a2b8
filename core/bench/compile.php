<?php

declare(strict_types=1);

// Compiling accounts of 100,000 and 1,000,000 ads with 2,000 different texts, against checking the same account in the
// same run.

use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Proof\Survey;

require __DIR__.'/lib.php';
require __DIR__.'/sample.php';

ini_set('memory_limit', '4G');
gc_disable(); // as wherever the core goes through an account: it makes no circles
$plan = Sample::plan();
$rules = RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped());
foreach ([10_000, 100_000, 1_000_000] as $ads) {
    $account = Sample::account($ads);
    gc_collect_cycles();
    $checks = static function () use ($account, $plan, $rules): float {
        $start = Bench::cpu();
        $survey = new Survey($account, $plan, $rules);
        foreach ($account->adNodes() as $key => $ad) {
            $survey->ad($ad, $account->parents[$key]);
        }
        $survey->findings();

        return Bench::cpu() - $start;
    };
    $check = $checks();
    $start = Bench::cpu();
    $compiled = Compiler::compile($account, $plan);
    $compile = Bench::cpu() - $start;
    $check = ($check + $checks()) / 2; // before and after: what else the machine does falls on both sides
    $changed = Write::changed($account, $compiled->writes);
    $after = new Survey($account->with($changed), $plan);
    foreach ($account->adNodes() as $key => $ad) {
        $after->ad($changed[$key] ?? $ad, $account->parents[$key]);
    }
    if (
        ($after->states()['proven'] ?? 0) !== $ads
        || $compiled->unmet !== []
        || count($compiled->writes) !== intdiv($ads * 6, 100)
    ) {
        fwrite(
            STDERR,
            'the compiled account is not in line: '
                .json_encode($after->states())
                .' after '
                .count($compiled->writes)
                ." writes\n",
        );
        exit(1);
    }
    $what =
        'compiling '
        .number_format($ads)
        .' ads, '
        .number_format(Sample::TEXTS)
        .' texts, times the check of the same';
    if ($ads === 1_000_000) {
        Bench::report($what, $compile / $check, 'at most 2', $compile <= 2 * $check);
    } else {
        printf("%-74s %8.2f\n", $what, $compile / $check);
    }
    unset($account, $compiled, $changed, $after);
}
Bench::end();
