<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use League\Uri\Modifier;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Edit\FindAndReplace;
use Vestigon\Core\Edit\RemoveParameter;
use Vestigon\Core\Edit\SetParameter;
use Vestigon\Core\Template\TemplateReader;

/** What is done to many texts at once. */
final class EditTest extends TestCase
{
    public function test_finds_and_replaces_words_and_patterns(): void
    {
        self::assertSame(
            'utm_source=nq&x=a.b',
            FindAndReplace::plain('NQ', 'nq')->of(SlotKind::Suffix, 'utm_source=NQ&x=a.b'),
        );
        self::assertSame(
            'x=b&x=b',
            FindAndReplace::pattern('x=(a)\w*', 'x=b')->of(SlotKind::Suffix, 'x=aa&x=ab'),
        );
        self::assertSame(
            'b=1&a=2',
            FindAndReplace::pattern('^(\w+=\d)&(\w+=\d)$', '$2&$1')->of(SlotKind::Suffix, 'a=2&b=1'),
        );
        self::assertNull(FindAndReplace::plain('ppc', '')->of(null, 'ppc'));
        self::assertNull(FindAndReplace::plain('ppc', 'cpc')->of(SlotKind::Template, null));
    }

    public function test_says_what_is_wrong_with_a_pattern(): void
    {
        $broken = ['(' => 'missing closing parenthesis', '' => 'it is empty', '[z-a]' => 'range out of order'];
        foreach ($broken as $pattern => $why) {
            try {
                FindAndReplace::pattern($pattern, '');
                self::fail($pattern);
            } catch (UnusableInput $e) {
                self::assertStringContainsString($why, $e->getMessage());
            }
        }
        $this->expectExceptionMessage('does not come to an end');
        FindAndReplace::pattern('(a+)+$', '')->of(SlotKind::Suffix, str_repeat('a', 60).'!');
    }

    /**
     * @return iterable<string, array{SlotKind, string|null, string, string|null, string|null}> slot, text, key, with it
     *     set to {v}, without it
     */
    public static function texts(): iterable
    {
        yield 'in its place' => [SlotKind::Suffix, 'a=1&k=0&b=2', 'k', 'a=1&k={v}&b=2', 'a=1&b=2'];
        yield 'behind all others' => [SlotKind::Suffix, 'a=1', 'k', 'a=1&k={v}', 'a=1'];
        yield 'where nothing is' => [SlotKind::Suffix, null, 'k', 'k={v}', null];
        yield 'twice becomes once' => [SlotKind::Suffix, 'k=1&a=1&k=2', 'k', 'k={v}&a=1', 'a=1'];
        yield 'the only one' => [SlotKind::Suffix, 'k=1', 'k', 'k={v}', null];
        yield 'a landing URL with a fragment' => [
            SlotKind::Landing,
            'https://v.example/b?k=1&a=1#k=2',
            'k',
            'https://v.example/b?k={v}&a=1#k=2',
            'https://v.example/b?a=1#k=2',
        ];
        yield 'a landing URL without a query' => [
            SlotKind::Landing,
            'https://v.example/b#top',
            'k',
            'https://v.example/b?k={v}#top',
            'https://v.example/b#top',
        ];
        yield 'a template' => [
            SlotKind::Template,
            '{landing}?a={device}',
            'k',
            '{landing}?a={device}&k={v}',
            '{landing}?a={device}',
        ];
        yield 'a key without a value' => [SlotKind::Suffix, 'a=1&k&b=2', 'k', 'a=1&k={v}&b=2', 'a=1&b=2'];
        yield 'a key without a value in a landing URL' => [
            SlotKind::Landing,
            'https://v.example/k?k',
            'k',
            'https://v.example/k?k={v}',
            'https://v.example/k',
        ];
        yield 'a key without a value in a template' => [
            SlotKind::Template,
            '{landing}?k&a=1',
            'k',
            '{landing}?k={v}&a=1',
            '{landing}?a=1',
        ];
        yield 'a token that holds the mark' => [
            SlotKind::Template,
            '{landing}?a={phone-only:x=1&k=2}',
            'k',
            '{landing}?a={phone-only:x=1&k=2}&k={v}',
            '{landing}?a={phone-only:x=1&k=2}',
        ];
    }

    #[DataProvider('texts')]
    public function test_sets_and_removes_a_parameter(
        SlotKind $kind,
        ?string $text,
        string $key,
        ?string $set,
        ?string $removed,
    ): void {
        $reader = new TemplateReader(Make::northquay());

        self::assertSame($set, (new SetParameter($reader, $key, '{v}'))->of($kind, $text));
        self::assertSame($removed, (new RemoveParameter($reader, $key))->of($kind, $text));
    }

    /** Reference: league/uri-components, appendQueryPairs and removeQueryPairsByKey, on URLs without tokens. */
    public function test_agrees_with_a_library_on_plain_urls(): void
    {
        $reader = new TemplateReader(Make::northquay());
        mt_srand(7);
        for ($i = 0; $i < 300; $i++) {
            $pairs = array_map(
                static fn (): string => ['a', 'b', 'k'][mt_rand(0, 2)].'='.mt_rand(0, 9),
                range(0, mt_rand(0, 4)),
            );
            $url = 'https://v.example/p?'.implode('&', $pairs).['', '#top'][mt_rand(0, 1)];
            $without = (string) preg_replace(
                '/\?(?=#|$)/',
                '',
                (string) Modifier::from($url)->removeQueryPairsByKey('k')->getUriString(),
            ); // it may leave the mark of an empty query
            self::assertSame($without, (new RemoveParameter($reader, 'k'))->of(SlotKind::Landing, $url), $url);
            if (! str_contains($url, 'k=')) {
                self::assertSame(
                    Modifier::from($url)
                        ->appendQueryPairs([['k', '5']])
                        ->getUriString(),
                    (new SetParameter($reader, 'k', '5'))->of(SlotKind::Landing, $url),
                    $url,
                );
            }
        }
    }

    public function test_refuses_what_would_not_be_one_parameter(): void
    {
        $reader = new TemplateReader(Make::northquay());
        foreach ([['a b', 'x'], ['a=b', 'x'], ['', 'x'], ['a', 'x&y=1'], ['a', '#']] as [$key, $value]) {
            try {
                new SetParameter($reader, $key, $value);
                self::fail("{$key} {$value}");
            } catch (UnusableInput $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
    }
}
