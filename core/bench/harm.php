<?php

declare(strict_types=1);

// php core/bench/harm.php COUNT SEED [DIALECT|unseen|varied|""] [NUMBER]: compiles random accounts, on the shipped
// platforms and on ones that nobody has seen in turn (varied: by plans with variants), and tells every fault by its
// kind. Of every tenth account, what is unmet is searched for by brute force. Two processes share the accounts; faults
// and how far each is go to standard error as they come, what was counted to standard output at the end. With a number:
// that one account of the run, shown.

use Symfony\Component\Process\Process;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Tests\CompilationTrial;

require dirname(__DIR__, 2).'/vendor/autoload.php';

const PROCESSES = 2;
const EACH_ONCE = 16; // so many accounts, and each shipped platform had one of them
const NONE = ['accounts' => 0, 'ads' => 0, 'writes' => 0, 'unmet' => 0, 'crash' => 0];

// every other account is on a platform that nobody has seen
function platformOf(int $number, string $which): ?Dialect
{
    $shipped = array_values(Shipped::all());

    return match (true) {
        $which === 'unseen' => null,
        ! in_array($which, ['', 'varied'], true) => Shipped::dialect($which)
            ?? exit("there is no shipped platform {$which}\n"),
        default => $number % 2 === 0 ? $shipped[intdiv($number, 2) % count($shipped)] : null,
    };
}

/**
 * @param iterable<int> $numbers of accounts
 * @return array<string, int> what was counted, faults by kind among it
 */
function tried(iterable $numbers, int $seed, string $which, bool $shown): array
{
    $counted = NONE + array_fill_keys(CompilationTrial::KINDS, 0);
    foreach ($numbers as $i) {
        $counted['accounts']++;
        try {
            $trial = CompilationTrial::random($seed, $i, platformOf($i, $which), $which === 'varied');
            $faults = $trial->faults(searches: $i % 10 === 0 || $shown);
        } catch (Throwable $e) {
            $counted['crash']++;
            fwrite(STDERR, "{$i} crash: {$e->getMessage()} at {$e->getFile()}:{$e->getLine()}\n");

            continue;
        }
        $counted['ads'] += iterator_count($trial->account->adNodes());
        $counted['writes'] += count($trial->compiled->writes);
        $counted['unmet'] += count($trial->compiled->unmet);
        foreach ($faults as $kind => $why) {
            $counted[$kind]++;
            fwrite(STDERR, "{$i} {$trial->account->dialect->id} {$kind}: {$why[0]}\n");
        }
        if ($shown) {
            $flags = JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE;
            echo implode("\n", $trial->shown()), "\n", json_encode($faults, $flags), "\n";
        }
        if ($counted['accounts'] % 500 === 0) {
            fwrite(STDERR, "{$i} reached: ".json_encode($counted)."\n");
        }
    }

    return $counted;
}

[, $count, $seed, $which, $only, $share] = $argv + [1 => '1000', 2 => '1', 3 => '', 4 => '', 5 => ''];
if ($share !== '') {
    // by turns of every platform, so that each process has as many of those that take longer
    $own = static fn (int $number): bool => intdiv($number, EACH_ONCE) % PROCESSES === (int) $share;
    $numbers = array_filter(range(0, (int) $count - 1), $own);
    echo json_encode(tried($numbers, (int) $seed, $which, false)), "\n";
    exit;
}
if ($only !== '') {
    tried([(int) $only], (int) $seed, $which, true);
    exit;
}
$processes = [];
for ($share = 0; $share < PROCESSES; $share++) {
    $command = [PHP_BINARY, __FILE__, $count, $seed, $which, '', (string) $share];
    $processes[] = $process = new Process($command, timeout: null);
    $process->start(function (string $to, string $text): void {
        fwrite(STDERR, $to === Process::ERR ? $text : '');
    });
}
while (array_filter($processes, static fn (Process $p): bool => $p->isRunning()) !== []) {
    usleep(200_000); // asking each whether it runs takes over what it says
}
$counted = [];
foreach ($processes as $process) {
    $process->wait();
    $part = json_decode($process->getOutput(), true);
    if (! is_array($part)) {
        exit("a process ended before its work was done: {$process->getExitCodeText()}\n");
    }
    foreach ($part as $kind => $number) {
        $counted[$kind] = ($counted[$kind] ?? 0) + $number;
    }
}
echo "seed {$seed}\n";
foreach ($counted as $kind => $number) {
    printf("%-16s %d\n", $kind, $number);
}
exit(array_sum(array_intersect_key($counted, array_flip(['crash', ...CompilationTrial::KINDS]))) === 0 ? 0 : 1);
