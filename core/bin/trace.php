<?php

declare(strict_types=1);

// ./vestigon trace < request.json: one trace request, or a JSON array of them; results go to standard output.

use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Trace\TraceRequest;

require dirname(__DIR__, 2).'/vendor/autoload.php';

const FLAGS = JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE;

try {
    $document = Cursor::json((string) stream_get_contents(STDIN), 'standard input');
    $document = new Cursor($document->value);
    $many = is_array($document->value) && array_is_list($document->value);
    $results = array_map(
        static fn (Cursor $request): array => TraceRequest::read($request, Shipped::dialect(...))->trace()->toArray(),
        $many ? $document->list() : [$document],
    );
} catch (UnusableInput $e) {
    fwrite(STDERR, 'trace: '.$e->getMessage()."\n");
    exit(2);
}
echo json_encode($many ? $results : $results[0], FLAGS), "\n";
