<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\NodeReader;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Learn\Explained;
use Vestigon\Core\Learn\RuleChange;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Settings;

/** A real click's URL, beside the texts that made it, tells a platform's rules. Held against the trace itself. */
final class ExplainedTest extends TestCase
{
    private const LANDING = 'https://shop.example/page?lang=en#offers';

    /** @return array<string, mixed> */
    private static function document(string $id): array
    {
        return json_decode((string) file_get_contents(Shipped::file($id)), true);
    }

    /** @return list<array<string, mixed>> */
    private static function nodes(array $document, string $template, string $suffix = ''): array
    {
        $carrier = array_column($document['slots'], 'levels', 'kind');
        $nodes = array_map(static fn (array $l): array => ['level' => $l['id']], $document['levels']);
        foreach ($nodes as $i => $node) {
            if ($document['levels'][$i]['role'] === 'campaign' && $document['campaignTypes'] !== []) {
                $nodes[$i]['type'] = $document['campaignTypes'][0];
            }
            if ($template !== '' && $node['level'] === ($carrier['template'][0] ?? '')) {
                $nodes[$i]['slots']['template'] = $template;
            }
            if ($suffix !== '' && $node['level'] === ($carrier['suffix'][0] ?? '')) {
                $nodes[$i]['slots']['suffix'] = $suffix;
            }
        }
        $nodes[count($nodes) - 1]['slots']['landing'] = self::LANDING;

        return $nodes;
    }

    /** What a platform with this document would send. */
    private static function sent(array $document, array $nodes): string
    {
        $named = array_map(
            static fn (array $n, int $i): array => ['id' => "71{$i}", 'name' => "Winter Sale {$i}|b"] + $n,
            $nodes,
            array_keys($nodes),
        );
        $path = NodeReader::path(new Cursor($named), DialectReader::read(new Cursor($document)));
        $context = ['click.id' => 'Kx4', 'keyword.text' => 'blue & white', 'publisher.name' => 'The Gazette'];

        return Route::once($path, $context, new Settings(clickId: true))->clickUrl;
    }

    /** @return iterable<string, array{string, string, string, list<array{list<string|int>, mixed}>}> */
    public static function platforms(): iterable
    {
        $northquay = '{landing}?utm_campaign={campaign.name}&utm_term={term}';
        yield 'a second question mark' => ['northquay-search', $northquay, '', [['assembly', 'mendsQuestionMark']]];
        yield 'what is behind the fragment' => ['northquay-search', $northquay, '', [['assembly', 'mendsFragment']]];
        $suffix = 'utm_source=mossfeed&utm_content=~item~&utm_term=~site~';
        yield 'where the suffix joins' => ['mossfeed', '', $suffix, [['assembly', 'suffixJoins']]];
        yield 'a space in a value' => ['mossfeed', '', $suffix, [['assembly', 'space']]];
        yield 'two at once' => [
            'mossfeed',
            '',
            $suffix,
            [['assembly', 'suffixJoins'], ['assembly', 'space']],
        ];
    }

    /** @param list<list<string>> $places */
    #[DataProvider('platforms')]
    public function test_rules_that_are_told_wrongly_are_found_by_one_click(
        string $id,
        string $template,
        string $suffix,
        array $places,
    ): void {
        $right = self::document($id);
        $nodes = self::nodes($right, $template, $suffix);
        $url = self::sent($right, $nodes);
        self::assertSame([], Explained::of($right, $nodes, $url)->changes, 'its own rules explain it');

        $wrong = $right;
        foreach ($places as [$in, $rule]) {
            $other = [
                'suffixJoins' => ['click' => 'landing', 'landing' => 'click'],
                'space' => ['+' => '%20', '%20' => '+'],
            ][$rule] ?? null;
            $wrong[$in][$rule] = $other === null ? ! $right[$in][$rule] : $other[$right[$in][$rule]];
        }
        $told = Explained::of($wrong, $nodes, $url);
        self::assertNotNull($told->changes);
        $mended = array_reduce($told->changes, static fn (array $d, RuleChange $c): array => $c->in($d), $wrong);
        self::assertSame($url, self::sent($mended, $nodes), 'what is proposed sends that very URL');
        self::assertLessThanOrEqual(count($places), count($told->changes), 'and no more than that');
    }

    public function test_a_click_id_and_the_depth_of_values_are_read_off(): void
    {
        $document = self::document('mossfeed');
        $headline = (int) array_search('headline', array_column($document['tokens'], 'name'), true);
        $nodes = self::nodes($document, '', 'utm_content=~headline~');
        $right = ['clickId' => ['parameter' => 'mfid', 'switch' => 'always', 'default' => true]] + $document;
        $right['tokens'][$headline]['encode'] = 2;
        $url = self::sent($right, $nodes);
        $told = Explained::of($document, $nodes, $url);
        self::assertSame(
            ['clickId' => $right['clickId'], "tokens.{$headline}.encode" => 2],
            array_combine(
                array_map(static fn (RuleChange $c): string => $c->place(), (array) $told->changes),
                array_map(static fn (RuleChange $c): mixed => $c->to, (array) $told->changes),
            ),
        );
        self::assertStringContainsString($told->values['ad.name'], $url);
    }

    public function test_what_nothing_explains_is_said_with_the_place_where_it_departs(): void
    {
        $document = self::document('mossfeed');
        $nodes = self::nodes($document, '', 'utm_source=a');
        $told = Explained::of($document, $nodes, 'https://shop.example/other');
        self::assertNull($told->changes);
        self::assertSame(strlen('https://shop.example/'), $told->until);
    }
}
