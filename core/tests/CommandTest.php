<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** ./vestigon trace, check and sheet, as a person uses them. */
final class CommandTest extends TestCase
{
    /** @return array{int, string, string} exit code, standard output, standard error */
    private static function answer(string $command, string $input): array
    {
        $process = proc_open(
            [dirname(__DIR__, 2).'/vestigon', $command],
            [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']],
            $pipes,
        );
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
        [$code, $out, $err] = self::answer('trace', (string) json_encode($cases[0]['request']));
        self::assertSame([0, ''], [$code, $err]);
        self::assertSame($cases[0]['expect']['clickUrl'], json_decode($out, true)['clickUrl']);

        [$code, $out] = self::answer('trace', (string) json_encode(array_column($cases, 'request')));
        self::assertSame(0, $code);
        self::assertSame(
            array_column(array_column($cases, 'expect'), 'landed'),
            array_column(json_decode($out, true), 'landed'),
        );
    }

    public function test_a_sheet_with_errors_is_read_and_ends_with_1(): void
    {
        $cases = json_decode((string) file_get_contents(__DIR__.'/data/sheets.json'), true);
        $cases = array_column($cases, null, 'name');
        $read = static fn (string $name): array => self::answer(
            'sheet',
            (string) json_encode($cases[$name]['request']),
        );

        [$code, $out, $err] = $read('one table, ids, preamble, a total');
        self::assertSame([0, ''], [$code, $err]);
        self::assertCount(5, json_decode($out, true)['account']['nodes']);
        self::assertSame(1, $read('numbers damaged by a spreadsheet')[0]);
        self::assertSame(
            [2, '', "sheet: tables[0].rows[0][1]: a cell is text, a number or null\n"],
            self::answer(
                'sheet',
                (string) json_encode([
                    ...$cases['no identity']['request'],
                    'tables' => [['title' => 'ads', 'rows' => [['Ad ID', true]]]],
                ]),
            ),
        );
    }

    public function test_unusable_input_ends_with_2_and_one_line_that_says_where(): void
    {
        self::assertSame(
            [2, '', "trace: standard input: is not JSON (Syntax error)\n"],
            self::answer('trace', '{'),
        );
        self::assertSame(
            [2, '', "trace: [1].dialect: \"nowhere\" is no shipped dialect\n"],
            self::answer(
                'trace',
                '[{"dialect":"mossfeed","path":[{"level":"account","id":1,"name":"x"}]},'
                    .'{"dialect":"nowhere","path":[]}]',
            ),
        );
        self::assertSame(
            [2, '', "trace: path: at least one node is wanted, the account first\n"],
            self::answer('trace', '{"dialect":"mossfeed","path":[]}'),
        );
    }

    public function test_an_array_of_many_requests_streams_in_bounded_memory(): void
    {
        $request = json_encode(
            json_decode((string) file_get_contents(__DIR__.'/data/trace.json'), true)[0]['request'],
        );
        $run = static function (int $count) use ($request): int {
            $input = tempnam(sys_get_temp_dir(), 'trace');
            file_put_contents($input, '['.substr(str_repeat($request.',', $count), 0, -1).']');
            $process = new Process(
                ['php', '-d', 'memory_limit=32M', dirname(__DIR__).'/bin/vestigon.php', 'trace'],
                input: fopen($input, 'r'),
            );
            $answers = 0;
            $rest = '';
            $process->start();
            foreach ($process as $text) {
                $lines = explode("\n", $rest.$text);
                $rest = (string) array_pop($lines);
                $answers += count(preg_grep('/"vestigon\.trace\/1"/', $lines) ?: []);
            }
            self::assertSame(0, $process->wait(), $process->getErrorOutput());
            unlink($input);

            return $answers;
        };
        // 100,000 requests are 60 MB of input; the bench does that many
        self::assertSame(20_000, $run(20_000));
    }

    public function test_checks_an_account_with_and_without_a_plan(): void
    {
        $account = [
            'format' => 'vestigon.account/1',
            'dialect' => 'reedrail',
            'nodes' => [
                [
                    'id' => 'A',
                    'level' => 'account',
                    'name' => 'Acc',
                    'slots' => ['suffix' => 'utm_source=reedrail&utm_content=(:teaser:)'],
                ],
                ['id' => 7, 'parent' => 'A', 'level' => 'campaign', 'name' => 'C', 'type' => 'content'],
                [
                    'id' => 70,
                    'parent' => 7,
                    'level' => 'teaser',
                    'name' => 'T',
                    'slots' => ['landing' => 'https://v.example/'],
                ],
            ],
        ];
        $plan = [
            'format' => 'vestigon.plan/1',
            'id' => 'p',
            'title' => 'P',
            'clickId' => 'required',
            'parameters' => [
                ['key' => 'utm_source', 'parts' => [['text' => 'reedrail']]],
                ['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]],
            ],
        ];
        [$code, $out, $err] = self::answer(
            'check',
            (string) json_encode(['dialect' => 'reedrail', 'account' => $account, 'plan' => $plan]),
        );
        self::assertSame([0, ''], [$code, $err]);
        self::assertSame(
            [true, []],
            [json_decode($out, true)['proven'], json_decode($out, true)['counterexamples']],
        );

        $plan['parameters'][0]['parts'][0]['text'] = 'rr';
        [$code, $out] = self::answer(
            'check',
            (string) json_encode(['dialect' => 'reedrail', 'account' => $account, 'plan' => $plan]),
        );
        $broken = json_decode($out, true)['counterexamples'][0];
        self::assertSame(
            [1, '70', 'wrong-value', 'utm_source', 'rr', ['reedrail']],
            [$code, $broken['ad'], $broken['code'], $broken['key'], $broken['expected'], $broken['arrived']],
        );

        [$code, $out] = self::answer(
            'check',
            (string) json_encode(['dialect' => 'reedrail', 'account' => $account]),
        );
        self::assertSame([0, ['format', 'findings']], [$code, array_keys(json_decode($out, true))]);
        self::assertSame(
            [2, '', "check: account.nodes[2].parent: there is no node \"8\"\n"],
            self::answer(
                'check',
                (string) json_encode([
                    'dialect' => 'reedrail',
                    'account' => [
                        'nodes' => [
                            $account['nodes'][0],
                            $account['nodes'][1],
                            ['parent' => 8] + $account['nodes'][2],
                        ],
                    ],
                ]),
            ),
        );
    }
}
