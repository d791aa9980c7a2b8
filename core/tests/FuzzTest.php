<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Command\CheckCommand;
use Vestigon\Core\Command\TraceCommand;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Findings\Inspector;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Segment;
use Vestigon\Core\Trace\Settings;

/**
 * Any bytes, anywhere: an answer, never an exception, a warning or more than linear time. PHPUnit turns warnings into
 * failures.
 */
final class FuzzTest extends TestCase
{
    private const TEXTS = 200_000;

    /** @param list<string> $bits */
    private static function text(array $bits, int $most): string
    {
        $text = '';
        for ($i = mt_rand(0, $most); $i > 0; $i--) {
            $text .= mt_rand(0, 9) === 0 ? chr(mt_rand(0, 255)) : $bits[mt_rand(0, count($bits) - 1)];
        }

        return $text;
    }

    /** @return list<string> */
    private static function bits(Dialect $dialect): array
    {
        $syntax = $dialect->syntax;
        $bits = [
            '?',
            '&',
            '=',
            '#',
            '%',
            '%2',
            '%41',
            ' ',
            'utm_source',
            'utm_sorce=',
            'a',
            'é',
            '日',
            "\xF0\x9F",
            'https://v.example/b',
            'http://h.example/r?to=',
            '@',
            '+44 20 7946 0958',
            ':',
            '://',
            '[post:id]',
            '<<creative-id>>',
            '^^zone^^',
            '(:teaser:)',
            '~site~',
            '{term}',
            '{',
            '}',
            "\0",
            "\n",
        ];
        foreach ($dialect->tokens as $token) {
            array_push($bits, $dialect->written($token->name), $syntax?->open.$token->name.':');
        }

        return $syntax === null
            ? $bits
            : [
                ...$bits,
                $syntax->open,
                $syntax->close,
                $syntax->open,
                $syntax->close,
                $syntax->open.($dialect->customParameters->prefix ?? '').'x'.$syntax->close,
            ];
    }

    public function test_any_text_in_any_slot_of_any_dialect_is_answered(): void
    {
        mt_srand(20261125);
        $rules = RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped());
        $each = intdiv(self::TEXTS, 5 * count(Shipped::all()));
        foreach (Shipped::all() as $dialect) {
            $bits = self::bits($dialect);
            $reader = new TemplateReader($dialect);
            $inspector = new Inspector($rules, $reader, Make::plan());
            $ad = $dialect->levelOf(Role::Ad)->id ?? '';
            for ($i = 0; $i < $each; $i++) {
                $slots = array_map(static fn (): string => self::text($bits, 12), [
                    'template' => 0,
                    'suffix' => 0,
                    'landing' => 0,
                ]);
                $path = new Path($dialect, [
                    new Node('account', self::text($bits, 2), self::text($bits, 3), null, [
                        'suffix' => self::text($bits, 8),
                    ]),
                    new Node(
                        $dialect->levelOf(Role::Campaign)->id ?? '',
                        '7',
                        self::text($bits, 3),
                        mt_rand(0, 3) === 0 ? 'no such type' : $dialect->campaignTypes[0],
                        [],
                        ['x' => self::text($bits, 6)],
                    ),
                    new Node($ad, '1', self::text($bits, 3), null, $slots),
                ]);
                $context = [
                    'keyword.text' => self::text($bits, 3),
                    'device' => ['mobile', "\xFF"][mt_rand(0, 1)],
                    'click.id' => self::text($bits, 2),
                ];
                $route = Route::of($path, new Settings(), [new Hop('h.example', 'to', true)], $reader);
                $trace = $route->trace($context);

                if (
                    implode('', array_map(static fn (Segment $s): string => $s->text, $trace->segments))
                    !== (string) $trace->clickUrl
                ) {
                    self::fail("segments do not add up: {$dialect->id} ".bin2hex(serialize($slots)));
                }
                foreach (
                    [
                        ...$inspector->path($path, new Settings()),
                        ...$inspector->click($path, $trace, $context, new Settings(), $route->page($context)),
                    ] as $finding
                ) {
                    if ($finding->at !== null && $finding->node !== null) {
                        $text =
                            $finding->slot === null
                                ? $finding->node->custom[$finding->custom ?? '']
                                : (string) $finding->node->slot($finding->slot);
                        if ($finding->at < 0 || $finding->at + $finding->length > strlen($text)) {
                            self::fail(
                                "{$finding->code} points outside of the text: {$dialect->id} ".bin2hex($text),
                            );
                        }
                    }
                }
                foreach ($slots as $text) {
                    if ((string) $reader->read($text) !== $text) {
                        self::fail('printing a template does not give its text: '.bin2hex($text));
                    }
                }
            }
        }
        $this->addToAssertionCount(self::TEXTS);
    }

    /** Twice the text, twice the space at most. Time is measured in the bench. */
    public function test_huge_and_deep_texts_take_linear_space(): void
    {
        $dialect = Make::northquay();
        $rules = RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped());
        $peak = static function (string $text) use ($dialect, $rules): int {
            $path = new Path($dialect, [
                new Node('account', 'A', 'A'),
                new Node('ad', '1', 'Ad', null, ['suffix' => $text, 'landing' => 'https://v.example/']),
            ]);
            gc_collect_cycles();
            memory_reset_peak_usage();
            $before = memory_get_usage();
            $inspector = new Inspector($rules, ($reader = new TemplateReader($dialect)), Make::plan());
            $route = Route::of($path, reader: $reader);
            $trace = $route->trace([]);
            $inspector->path($path, new Settings());
            $inspector->click($path, $trace, [], new Settings(), $route->page([]));

            return memory_get_peak_usage() - $before;
        };
        foreach (
            [
                '{phone-only:',
                '{',
                '}',
                '{term}',
                '&utm_sorce=A b',
                '?',
                '#',
                '%25',
                '{my.x',
                '~',
                '+44 ',
                'a',
                'a@',
                '(:a',
                '00 ',
                "\xFF",
                '&a=[post:id]',
            ] as $piece
        ) {
            $once = $peak(str_repeat($piece, 5_000));
            self::assertLessThan(2.5 * $once + (1 << 20), $peak(str_repeat($piece, 10_000)), $piece);
        }
    }

    /** Any document, however mangled: an answer, or an error that says where. */
    public function test_any_request_is_answered_or_refused_with_the_place(): void
    {
        mt_srand(77);
        $clicks = array_column(
            json_decode((string) file_get_contents(__DIR__.'/data/trace.json'), true),
            'request',
        );
        $dialect = json_decode((string) file_get_contents(Shipped::file('pellworth-search')), true);
        $check = [
            'dialect' => $dialect,
            'account' => [
                'settings' => ['autoTags' => 'fill'],
                'hops' => [['host' => 'h.example', 'to' => 'to', 'forwards' => 'append']],
                'nodes' => [
                    [
                        'id' => 'A',
                        'level' => 'account',
                        'name' => 'A',
                        'slots' => ['template' => '{LandingPage}?utm_source=x'],
                    ],
                    [
                        'id' => 1,
                        'parent' => 'A',
                        'level' => 'campaign',
                        'name' => 'C',
                        'type' => 'text',
                        'custom' => ['n' => 'x'],
                    ],
                    ['id' => 2, 'parent' => 1, 'level' => 'group', 'name' => 'G'],
                    [
                        'id' => 3,
                        'parent' => 2,
                        'level' => 'ad',
                        'name' => 'D',
                        'slots' => ['landing' => 'https://v.example/'],
                        'attributes' => ['width' => '1'],
                    ],
                ],
            ],
            'plan' => [
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'required',
                'channels' => ['search' => 'Paid search'],
                'parameters' => [
                    [
                        'key' => 'utm_source',
                        'parts' => [['text' => 'x']],
                        'vocabulary' => ['x', ['value' => 'y', 'retired' => true, 'use' => 'x']],
                        'platforms' => ['mossfeed' => ['omit' => true]],
                        'fallback' => [[['field' => 'ad.id']]],
                    ],
                ],
            ],
        ];
        $commands = [
            [new TraceCommand(Shipped::all()), $clicks],
            [new CheckCommand(Shipped::all()), [$check, ['dialect' => 'mossfeed'] + $check]],
        ];
        $outcomes = ['answered' => 0, 'refused' => 0];
        for ($i = 0; $i < 6000; $i++) {
            [$command, $requests] = $commands[$i % 2];
            $request = $requests[mt_rand(0, count($requests) - 1)];
            for ($n = mt_rand(1, 3); $n > 0; $n--) {
                self::mangle($request);
            }
            try {
                json_encode(
                    $command->answer(new Cursor($request))->document,
                    JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE,
                );
                $outcomes['answered']++;
            } catch (UnusableInput $e) {
                self::assertMatchesRegularExpression('/^[^\n]+: [^\n]+$/', $e->getMessage());
                $outcomes['refused']++;
            }
        }
        self::assertGreaterThan(300, min($outcomes));
    }

    private static function mangle(mixed &$value): void
    {
        if (is_array($value) && $value !== [] && mt_rand(0, 6) > 0) {
            $key = array_keys($value)[mt_rand(0, count($value) - 1)];
            if (mt_rand(0, 15) === 0) {
                unset($value[$key]);
            } else {
                self::mangle($value[$key]);
            }

            return;
        }
        $value = [
            null,
            '',
            "\xFF",
            0,
            -3,
            1.5,
            true,
            [],
            ['x'],
            ['a' => 'b'],
            'ad',
            '{',
            str_repeat('a', 3000),
            "a\nb",
            ['level' => 'ad', 'id' => 'z', 'name' => 'z'],
            'A',
            1,
        ][mt_rand(0, 16)];
    }

    public function test_ten_thousand_nested_conditions_are_read_filled_and_found(): void
    {
        $text = 'utm_source='.str_repeat('{phone-only:', 10_000).'x'.str_repeat('}', 10_000).'&c={nope}';
        $path = new Path(Make::northquay(), [
            new Node('account', 'A', 'A', null, ['suffix' => $text]),
            new Node('campaign', '7', 'C', 'text'),
            new Node('ad', '1', 'Ad', null, ['landing' => 'https://v.example/']),
        ]);
        self::assertSame(
            'https://v.example/?utm_source=x&c={nope}&nqcid=Q',
            Route::of($path)->clickUrl(['device' => 'mobile', 'click.id' => 'Q']),
        );
        self::assertSame(
            'https://v.example/?utm_source=&c={nope}&nqcid=Q',
            Route::of($path)->clickUrl(['device' => 'desktop', 'click.id' => 'Q']),
        );
        $found = (new Inspector(
            RuleBook::all([Make::northquay()], ChannelsReader::shipped()),
            new TemplateReader(Make::northquay()),
        ))->path($path, new Settings());
        self::assertContains('unknown-token', array_map(static fn ($f): string => $f->code, $found));
    }

    public function test_ten_megabytes_of_template_are_read(): void
    {
        $text = str_repeat('utm_source=a&{phone-only:x={term}}', 320_000);
        self::assertGreaterThan(10_000_000, strlen($text));
        $template = (new TemplateReader(Make::northquay()))->read($text);
        self::assertCount(640_000, $template->parts);
        self::assertSame(crc32($text), crc32((string) $template));
    }
}
