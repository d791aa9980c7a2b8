<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Command\CheckCommand;
use Vestigon\Core\Command\CompileCommand;
use Vestigon\Core\Command\DecodeCommand;
use Vestigon\Core\Command\FeedCommand;
use Vestigon\Core\Command\SheetCommand;
use Vestigon\Core\Command\TraceCommand;
use Vestigon\Core\Command\WatchCommand;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;

/**
 * The published schemas (JSON Schema, draft 2020-12), by a validator library: what we ship and answer keeps them, and
 * they refuse what our readers refuse.
 */
final class SchemaTest extends TestCase
{
    /** @return list<string> places of what is wrong; empty: the document keeps the schema */
    private static function errors(mixed $document, string $schema): array
    {
        $validator = new Validator(max_errors: 20);
        $validator
            ->resolver()
            ?->registerPrefix('https://vestigon.example/schemas/', dirname(__DIR__, 2).'/docs/formats/schemas');
        $result = $validator->validate(
            json_decode((string) json_encode($document, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE)),
            "https://vestigon.example/schemas/{$schema}.schema.json",
        );
        $error = $result->error();

        return $error === null
            ? []
            : array_values(array_map(strval(...), array_keys((new ErrorFormatter())->format($error, false))));
    }

    public function test_every_shipped_dialect_and_the_channel_rules_keep_their_schema(): void
    {
        foreach (Shipped::ids() as $id) {
            $document = json_decode((string) file_get_contents(dirname(__DIR__)."/dialects/{$id}.json"), true);
            self::assertSame([], self::errors($document, 'dialect'), $id);
            self::assertGreaterThan(60, strlen($document['about']), "{$id} is explained");
        }
        foreach (['channels' => 'channels', 'keys' => 'key-sets'] as $folder => $schema) {
            $document = json_decode((string) file_get_contents(dirname(__DIR__)."/{$folder}/default.json"));
            self::assertSame([], self::errors($document, $schema));
        }
    }

    public function test_every_worked_request_and_its_answer_keep_theirs(): void
    {
        $command = new TraceCommand(Shipped::all());
        foreach (json_decode((string) file_get_contents(__DIR__.'/data/trace.json'), true) as $case) {
            self::assertSame(
                [],
                self::errors(self::withObjects($case['request']), 'trace-request'),
                $case['name'],
            );
            self::assertSame(
                [],
                self::errors($command->answer(new Cursor($case['request']))->document, 'trace'),
                $case['name'],
            );
        }
    }

    public function test_every_worked_sheet_and_what_comes_of_it_keep_theirs(): void
    {
        $command = new SheetCommand(Shipped::all());
        foreach (json_decode((string) file_get_contents(__DIR__.'/data/sheets.json'), true) as $case) {
            self::assertSame([], self::errors($case['request'], 'sheet-request'), $case['name']);
            $answer = $command->answer(new Cursor($case['request']))->document;
            self::assertSame([], self::errors(self::withObjects($answer), 'sheet'), $case['name']);
        }
    }

    public function test_every_worked_story_and_what_comes_of_it_keep_theirs(): void
    {
        foreach (json_decode((string) file_get_contents(__DIR__.'/data/watch.json'), true) as $case) {
            $request = $case['request'] + ['report' => ['by' => ['channel', 'day']]];
            self::assertSame([], self::errors($request, 'watch-request'), $case['name']);
            $answer = (new WatchCommand())->answer(new Cursor($request))->document;
            self::assertSame([], self::errors($answer, 'watch'), $case['name']);
        }
        $event = ['id' => '1', 'site' => 's', 'at' => '2026-10-05T09:00:00Z', 'kind' => 'view', 'url' => 'https://a'];
        foreach ([['kind' => 'look'], ['value' => 5], ['id' => ''], ['value' => 1.5, 'currency' => 'EUR']] as $wrong) {
            self::assertNotSame([], self::errors(['events' => [$wrong + $event]], 'watch-request'));
        }
    }

    public function test_every_worked_feed_and_what_comes_of_it_keep_theirs(): void
    {
        foreach (json_decode((string) file_get_contents(__DIR__.'/data/feeds.json'), true) as $case) {
            self::assertSame([], self::errors($case['request'], 'feed-request'), $case['name']);
            $answer = (new FeedCommand())->answer(new Cursor($case['request']))->document;
            self::assertSame([], self::errors($answer, 'feed-items'), $case['name']);
            foreach (['when' => ['column' => 'a'], 'do' => ['set' => 'a']] as $of => $wrong) {
                $request = $case['request'];
                $request['feed']['rules'] = [[$of => [$wrong]] + ['title' => '', 'do' => []]];
                self::assertNotSame([], self::errors($request, 'feed-request'));
            }
        }
    }

    public function test_a_url_read_back_keeps_its_own(): void
    {
        $ad = ['level' => 'ad', 'name' => 'Ad', 'slots' => ['landing' => 'https://v.example/?a=1']];
        $texts = [['node' => '2', 'slot' => 'landing', 'text' => 'https://v.example/?a=1', 'since' => null]];
        $request = [
            'urls' => [['url' => 'https://v.example/?a=1', 'at' => '2026-10-05T09:00:00Z'], ['url' => '?']],
            'accounts' => [[
                'format' => 'vestigon.account/1',
                'dialect' => 'oldgate-portal',
                'nodes' => [
                    ['id' => '1', 'level' => 'account', 'name' => 'A'],
                    ['id' => '2', 'parent' => '1'] + $ad,
                ],
                'texts' => $texts,
            ]],
        ];
        self::assertSame([], self::errors($request, 'decode-request'));
        $answer = (new DecodeCommand(Shipped::all()))->answer(new Cursor($request))->document;
        self::assertSame([], self::errors($answer, 'decode'));
        self::assertSame(['whole', []], [$answer['urls'][0]['found'][0]['fit'] ?? null, $answer['urls'][1]['found']]);
        $request['accounts'][0]['texts'][0]['custom'] = 'both';
        self::assertNotSame([], self::errors($request, 'decode-request'));
    }

    public function test_random_accounts_and_what_is_found_in_them_keep_theirs(): void
    {
        mt_srand(5);
        $check = new CheckCommand(Shipped::all());
        $compile = new CompileCommand(Shipped::all());
        foreach (Shipped::all() as $id => $dialect) {
            for ($i = 0; $i < 10; $i++) {
                $account = RandomAccounts::account($dialect);
                $nodes = [];
                foreach ($account->nodes as $key => $n) {
                    $nodes[] = array_filter(
                        [
                            'id' => $key,
                            'parent' => $account->parents[$key],
                            'level' => $n->level,
                            'name' => mb_scrub($n->name),
                            'type' => $n->type,
                            'slots' => array_map(mb_scrub(...), $n->slots),
                            'custom' => array_map(mb_scrub(...), $n->custom),
                            'attributes' => $n->attributes,
                        ],
                        static fn (mixed $v): bool => $v !== null && $v !== [],
                    );
                }
                $document = ['format' => 'vestigon.account/1', 'dialect' => $id, 'nodes' => $nodes];
                self::assertSame([], self::errors($document, 'account'));
                $answer = $check->answer(
                    new Cursor([
                        'dialect' => $id,
                        'account' => $document,
                        'plan' => [
                            'format' => 'vestigon.plan/1',
                            'id' => 'p',
                            'title' => 'P',
                            'clickId' => 'required',
                            'parameters' => [['key' => 'utm_source', 'parts' => [['text' => 'nq']]]],
                        ],
                    ]),
                );
                self::assertSame([], self::errors($answer->document, 'findings'));
                self::assertSame($answer->document['proven'], $answer->document['counterexamples'] === []);
                $request = [
                    'dialect' => $id,
                    'account' => $document,
                    'existing' => 'keep',
                    'plan' => [
                        'format' => 'vestigon.plan/1',
                        'id' => 'p',
                        'title' => 'P',
                        'clickId' => 'required',
                        'parameters' => [['key' => 'utm_source', 'parts' => [['text' => 'nq']]]],
                    ],
                ];
                self::assertSame([], self::errors($request, 'compile-request'));
                self::assertSame([], self::errors($compile->answer(new Cursor($request))->document, 'writes'));
            }
        }
    }

    /**
     * @return iterable<string, array{list<string|int>, mixed, string}> a place in a dialect, what is put there, and
     *     where the schema says it is wrong
     */
    public static function brokenDialects(): iterable
    {
        yield 'another format' => [['format'], 'x/1', '/format'];
        yield 'a role that is none' => [['levels', 1, 'role'], 'branch', '/levels/1/role'];
        yield 'an empty mark' => [['syntax', 'open'], '', '/syntax'];
        yield 'too much encoding' => [['tokens', 3, 'encode'], 12, '/tokens/3/encode'];
        yield 'a kind that is none' => [['tokens', 3, 'kind'], 'magic', '/tokens/3/kind'];
        yield 'a condition without values' => [
            ['tokens', 16],
            ['name' => 'phone-only', 'kind' => 'when', 'field' => 'device'],
            '/tokens/16',
        ];
        yield 'a word of no choice' => [['assembly', 'space'], '_', '/assembly/space'];
        yield 'a flag that is text' => [['assembly', 'mendsFragment'], 'no', '/assembly/mendsFragment'];
        yield 'no delivery' => [['delivery', 0], 'by post', '/delivery/0'];
        yield 'a click ID without a parameter' => [
            ['clickId'],
            ['switch' => 'always', 'default' => true],
            '/clickId',
        ];
    }

    /** @param list<string|int> $place */
    #[DataProvider('brokenDialects')]
    public function test_says_where_a_dialect_is_broken_as_the_reader_does(
        array $place,
        mixed $value,
        string $where,
    ): void {
        $document = json_decode(
            (string) file_get_contents(dirname(__DIR__).'/dialects/northquay-search.json'),
            true,
        );
        $at = &$document;
        foreach ($place as $key) {
            $at = &$at[$key];
        }
        $at = $value;
        $errors = self::errors($document, 'dialect');
        self::assertNotSame(
            [],
            array_filter($errors, static fn (string $e): bool => str_starts_with($e, $where)),
            implode(' ', $errors),
        );
        $this->expectException(UnusableInput::class);
        DialectReader::read(new Cursor($document));
    }

    /**
     * What the reader takes, the schema takes: whoever checks a document with the schema alone is not told otherwise.
     */
    public function test_the_schema_takes_what_the_reader_takes(): void
    {
        mt_srand(12);
        $taken = 0;
        foreach (Shipped::ids() as $id) {
            $whole = json_decode((string) file_get_contents(dirname(__DIR__)."/dialects/{$id}.json"), true);
            for ($i = 0; $i < 150; $i++) {
                $document = $whole;
                self::mutate($document);
                try {
                    DialectReader::read(new Cursor($document));
                } catch (UnusableInput) {
                    continue;
                }
                $taken++;
                self::assertSame(
                    [],
                    self::errors(self::withObjects($document), 'dialect'),
                    (string) json_encode($document),
                );
            }
        }
        self::assertGreaterThan(60, $taken);
    }

    private static function mutate(mixed &$value): void
    {
        if (is_array($value) && $value !== [] && mt_rand(0, 5) > 0) {
            $key = array_keys($value)[mt_rand(0, count($value) - 1)];
            if (mt_rand(0, 12) === 0) {
                unset($value[$key]);
                $value = array_is_list($value) ? $value : (is_int($key) ? array_values($value) : $value);
            } else {
                self::mutate($value[$key]);
            }

            return;
        }
        $value = [null, '', 'x', 0, 3, 12, true, [], ['x'], ['a' => 'b'], 'device', 'auto', 'keep', 'ad'][
            mt_rand(0, 13)
        ];
    }

    public function test_the_shipped_channel_rules_are_read(): void
    {
        self::assertGreaterThanOrEqual(12, count(ChannelsReader::shipped()->channels()));
    }

    /** Empty objects are lists to PHP. */
    private static function withObjects(mixed $value, string $key = ''): mixed
    {
        if (! is_array($value)) {
            return $value;
        }
        if (
            $value === []
            && in_array($key, ['custom', 'context', 'settings', 'attributes', 'levelsFor', 'values'], true)
        ) {
            return (object) [];
        }

        return array_combine(
            array_keys($value),
            array_map(self::withObjects(...), $value, array_map(strval(...), array_keys($value))),
        );
    }
}
