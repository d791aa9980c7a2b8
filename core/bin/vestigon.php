<?php

declare(strict_types=1);

// ./vestigon trace|check|compile|sheet|watch|decode|feed < request.json: one request, or a JSON array of them, which is
// read and answered item by item. `watch --events FILE` takes the events from a file, a line of JSON each. Exit 0 done,
// 1 there are findings or problems of severity error, 2 the input can't be used (one line on standard error says what
// and where).

use Vestigon\Core\Command\CheckCommand;
use Vestigon\Core\Command\CompileCommand;
use Vestigon\Core\Command\DecodeCommand;
use Vestigon\Core\Command\FeedCommand;
use Vestigon\Core\Command\SheetCommand;
use Vestigon\Core\Command\TraceCommand;
use Vestigon\Core\Command\WatchCommand;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\JsonItems;
use Vestigon\Core\Document\UnusableInput;

require dirname(__DIR__, 2).'/vendor/autoload.php';

const FLAGS =
    JSON_UNESCAPED_SLASHES
    | JSON_UNESCAPED_UNICODE
    | JSON_THROW_ON_ERROR
    | JSON_INVALID_UTF8_SUBSTITUTE
    | JSON_PRESERVE_ZERO_FRACTION;
const HELD_BACK = 1 << 20; // a bad request among few leaves standard output empty

gc_disable(); // the core makes no circles: looking for some among a million ads would find none
$name = $argv[1] ?? '';
$shipped = Shipped::all();
$command = match ($name) {
    'trace' => new TraceCommand($shipped),
    'check' => new CheckCommand($shipped),
    'compile' => new CompileCommand($shipped),
    'sheet' => new SheetCommand($shipped),
    'watch' => new WatchCommand(),
    'decode' => new DecodeCommand($shipped),
    'feed' => new FeedCommand(),
    default => null,
};
$file = $name === 'watch' && ($argv[2] ?? '') === '--events' ? $argv[3] ?? '' : null;
if ($command === null || $file === '' || count($argv) > ($file === null ? 2 : 4)) {
    fwrite(STDERR, "usage: trace|check|compile|sheet|decode|feed|watch [--events FILE] < request.json\n");
    exit(2);
}
if ($command instanceof WatchCommand && $file !== null) {
    $lines = is_file($file) ? @fopen($file, 'r') : false;
    if ($lines === false) {
        fwrite(STDERR, "watch: {$file} can't be read\n");
        exit(2);
    }
    try {
        $request = Cursor::json((string) stream_get_contents(STDIN));
        $command->stream($request, (static function () use ($lines): Generator {
            while (($line = fgets($lines)) !== false) {
                yield $line;
            }
        })(), STDOUT);
        exit(0);
    } catch (UnusableInput $e) {
        fwrite(STDERR, "{$name}: {$e->getMessage()}\n");
        exit(2);
    }
}
$isBad = false;
$out = '';
$count = 0;
try {
    foreach ($items = JsonItems::ofStream(STDIN) as $request) {
        $answer = $command->answer($request);
        $out .= ($count++ > 0 ? ",\n" : ($items->isArray ? '[' : '')).json_encode($answer->document, FLAGS);
        $isBad = $isBad || $answer->isBad;
        if (strlen($out) > HELD_BACK) {
            echo $out;
            $out = '';
        }
    }
} catch (UnusableInput $e) {
    fwrite(STDERR, "{$name}: {$e->getMessage()}\n");
    exit(2);
}
echo $out, $items->isArray ? ($count > 0 ? ']' : '[]') : '', "\n";
exit($isBad ? 1 : 0);
