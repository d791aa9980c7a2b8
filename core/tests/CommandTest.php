<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;

/** ./vestigon trace, as a person uses it. */
final class CommandTest extends TestCase
{
    /** @return array{int, string, string} exit code, standard output, standard error */
    private static function trace(string $input): array
    {
        $process = proc_open([dirname(__DIR__, 2).'/vestigon', 'trace'], [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
        self::assertIsResource($process);
        fwrite($pipes[0], $input);
        fclose($pipes[0]);
        $out = (string) stream_get_contents($pipes[1]);
        $err = (string) stream_get_contents($pipes[2]);

        return [proc_close($process), $out, $err];
    }

    public function test_traces_one_request_or_many(): void
    {
        $cases = array_slice(json_decode((string) file_get_contents(__DIR__.'/data/trace.json'), true), 0, 3);
        [$code, $out, $err] = self::trace((string) json_encode($cases[0]['request']));
        self::assertSame([0, ''], [$code, $err]);
        self::assertSame($cases[0]['expect']['clickUrl'], json_decode($out, true)['clickUrl']);

        [$code, $out] = self::trace((string) json_encode(array_column($cases, 'request')));
        self::assertSame(0, $code);
        self::assertSame(array_column(array_column($cases, 'expect'), 'landed'), array_column(json_decode($out, true), 'landed'));
    }

    public function test_unusable_input_ends_with_2_and_one_line_that_says_where(): void
    {
        self::assertSame([2, '', "trace: standard input: is not JSON (Syntax error)\n"], self::trace('{'));
        self::assertSame([2, '', "trace: [1].dialect: \"nowhere\" is no shipped dialect\n"], self::trace('[{"dialect":"mossfeed","path":[{"level":"account","id":1,"name":"x"}]},{"dialect":"nowhere","path":[]}]'));
        self::assertSame([2, '', "trace: path: at least one node is wanted, the account first\n"], self::trace('{"dialect":"mossfeed","path":[]}'));
    }
}
