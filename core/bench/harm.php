<?php

declare(strict_types=1);

// php core/bench/harm.php COUNT SEED [DIALECT|unseen] [NUMBER]: compiles random accounts, on the shipped platforms and
// on ones that nobody has seen in turn, and tells every fault by its kind. Of every tenth account, what is unmet is
// searched for by brute force. With a number: that one account of the run, shown.

use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Tests\CompilationTrial;

require dirname(__DIR__, 2).'/vendor/autoload.php';

[, $count, $seed, $which, $only] = $argv + [1 => '1000', 2 => '1', 3 => '', 4 => ''];
$shipped = array_values(Shipped::all());
$found = array_fill_keys(CompilationTrial::KINDS, 0);
$ads = $writes = $unmet = 0;
for ($i = $only === '' ? 0 : (int) $only; $i < ($only === '' ? (int) $count : (int) $only + 1); $i++) {
    // every other account is on a platform that nobody has seen
    $dialect = match (true) {
        $which === 'unseen' => null,
        $which !== '' => Shipped::dialect($which) ?? exit("there is no shipped platform {$which}\n"),
        default => $i % 2 === 0 ? $shipped[intdiv($i, 2) % count($shipped)] : null,
    };
    try {
        $trial = CompilationTrial::random((int) $seed, $i, $dialect);
        $faults = $trial->faults(searches: $i % 10 === 0 || $only !== '');
    } catch (Throwable $e) {
        $found['crash'] = ($found['crash'] ?? 0) + 1;
        echo "{$i} crash: {$e->getMessage()} at {$e->getFile()}:{$e->getLine()}\n";

        continue;
    }
    if ($i > 0 && $i % 1000 === 0) {
        fwrite(STDERR, "{$i} done, ".array_sum($found)." faults\n");
    }
    $ads += iterator_count($trial->account->adNodes());
    $writes += count($trial->compiled->writes);
    $unmet += count($trial->compiled->unmet);
    foreach ($faults as $kind => $shown) {
        $found[$kind]++;
        echo "{$i} {$trial->account->dialect->id} {$kind}: {$shown[0]}\n";
    }
    if ($only !== '') {
        echo implode("\n", $trial->shown()),
        "\n",
        json_encode($faults, JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE),
        "\n";
    }
}
echo "{$count} accounts, seed {$seed}: {$ads} ads, {$writes} writes, {$unmet} unmet\n";
foreach ($found as $kind => $accounts) {
    printf("%-16s %d\n", $kind, $accounts);
}
exit(array_sum($found) === 0 ? 0 : 1);
