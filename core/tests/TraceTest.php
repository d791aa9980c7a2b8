<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Inheritance;
use Vestigon\Core\Account\LayerState;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\SlotKind;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Origin;
use Vestigon\Core\Trace\Provenance;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Routes;
use Vestigon\Core\Trace\Segment;
use Vestigon\Core\Trace\Settings;
use Vestigon\Core\Trace\Stop;
use Vestigon\Core\Trace\Trail;

final class TraceTest extends TestCase
{
    /**
     * @param array<string, string> $account
     * @param array<string, string> $campaign
     * @param array<string, string> $custom
     */
    private static function path(
        array $account,
        array $campaign = [],
        string $landing = 'https://v.example/b',
        string $type = 'text',
        array $custom = [],
    ): Path {
        return new Path(Make::northquay(), [
            new Node('account', 'A', 'Velmar', null, $account),
            new Node('campaign', '71', 'Island Hopper', $type, $campaign, $custom),
            new Node('group', '702', 'Foot'),
            new Node('ad', '7031', 'Deck', null, ['landing' => $landing]),
        ]);
    }

    public function test_segments_say_where_they_come_from(): void
    {
        $path = self::path(
            ['template' => '{landing}?src=nq&t={term}&c={my.name}'],
            ['suffix' => 's={device}'],
            custom: ['name' => 'isle-{match}'],
        );
        $trace = Route::of($path)->trace([
            'keyword.text' => 'a b',
            'keyword.match' => 'exact',
            'device' => 'mobile',
            'click.id' => 'X',
        ]);

        self::assertSame('https://v.example/b?s=m&nqcid=X&src=nq&t=a%20b&c=isle-e', $trace->clickUrl);
        self::assertSame(
            [
                'landing landing ad https://v.example/b',
                'suffix suffix campaign ?',
                'suffix suffix campaign s=',
                'token suffix campaign device m',
                'click-id   nqcid &',
                'click-id   nqcid nqcid=',
                'click-id   nqcid X',
                'text template account &src=nq&t=',
                'token template account term a%20b',
                'text template account &c=',
                'custom template campaign my.name isle-',
                'custom template campaign my.name e',
            ],
            array_map(
                static fn (Segment $s): string => implode(
                    ' ',
                    array_filter(
                        [
                            $s->origin->role->value,
                            $s->origin->slot->value ?? '',
                            $s->origin->node->level ?? '',
                            $s->origin->token,
                            $s->text,
                        ],
                        static fn (?string $x): bool => $x !== null,
                    ),
                ),
                $trace->segments,
            ),
        );
    }

    /**
     * Any text in any slot, any context: the segments' texts are the click URL, and a shape made by another click gives
     * the same.
     */
    public function test_random_texts_add_up_and_are_pure(): void
    {
        mt_srand(7);
        $bits = [
            '{landing}',
            '{landing.enc}',
            '{landing.enc2}',
            '?a=1',
            '&b={term}',
            '{phone-only:?m={net}}',
            '{search-only:&s=1}',
            '#f',
            '{term.enc2}',
            '{my.x}',
            '{nope}',
            '{',
            '?',
            '&',
            '{match}',
            'https://h.example/r?to=',
        ];
        $text = static fn (): string => implode(
            '',
            array_map(static fn (): string => $bits[mt_rand(0, count($bits) - 1)], range(1, mt_rand(1, 5))),
        );
        $hops = [new Hop('h.example', 'to', true, [['h', 'é &']])];
        for ($i = 0; $i < 1500; $i++) {
            $path = self::path(
                ['template' => $text(), 'suffix' => $text()],
                ['template' => mt_rand(0, 1) === 1 ? $text() : ' '],
                'https://v.example/b'.['', '?q', '?x=1#f', '#f'][mt_rand(0, 3)],
                custom: ['x' => $text()],
            );
            $route = Route::of($path, new Settings(clickId: mt_rand(0, 1) === 1), $hops);
            for ($k = 0; $k < 6; $k++) {
                $context = array_filter(
                    [
                        'keyword.text' => ['', 'a', 'x&y #?'][mt_rand(0, 2)],
                        'device' => ['mobile', 'desktop', ''][mt_rand(0, 2)],
                        'network' => ['search', 'display'][mt_rand(0, 1)],
                        'click.id' => ['', 'Q'][mt_rand(0, 1)],
                    ],
                    static fn (): bool => mt_rand(0, 3) > 0,
                );
                $trace = $route->trace($context);
                self::assertEquals(
                    Route::of(
                        $path,
                        new Settings(clickId: str_contains((string) $trace->clickUrl, 'nqcid')),
                        $hops,
                    )->trace($context),
                    $trace,
                );
                self::assertSame($trace->clickUrl, $route->clickUrl($context));
                self::assertSame(
                    (string) $trace->clickUrl,
                    implode('', array_map(static fn (Segment $s): string => $s->text, $trace->segments)),
                );
            }
        }
    }

    public function test_a_value_that_is_not_encoded_may_change_the_structure(): void
    {
        $document = json_decode(
            (string) file_get_contents(dirname(__DIR__).'/dialects/northquay-search.json'),
            true,
        );
        $document['tokens'][] = ['name' => 'raw', 'kind' => 'value', 'field' => 'page.url', 'encode' => 0];
        $path = self::path(['suffix' => 'a=1{raw}', 'template' => '{landing}?z=1']);
        $path = new Path(DialectReader::read(new Cursor($document)), $path->nodes);
        $route = Route::of($path, new Settings(clickId: false));

        self::assertSame('https://v.example/b?a=1&b=2&z=1', $route->clickUrl(['page.url' => '&b=2']));
        self::assertSame('https://v.example/b?a=1#x&z=1', $route->clickUrl(['page.url' => '#x']));
    }

    public function test_layers_say_why_they_do_not_count(): void
    {
        $states = static fn (Path $path, SlotKind $kind): array => array_map(
            static fn ($l): LayerState => $l->state,
            (new Inheritance($path))->layers($kind),
        );

        self::assertSame(
            [LayerState::Hidden, LayerState::Counts],
            $states(self::path(['template' => '{landing}'], ['template' => '{landing}?a']), SlotKind::Template),
        );
        self::assertSame(
            [LayerState::TypeIgnores, LayerState::Counts],
            $states(
                self::path(['template' => '{landing}'], ['template' => '{landing}?a'], type: 'video'),
                SlotKind::Template,
            ),
        );
        self::assertSame(
            [LayerState::TypeIgnores],
            $states(self::path(['template' => '{landing}'], type: 'listing'), SlotKind::Template),
        );
        self::assertSame(
            [LayerState::NoSuchPlace, LayerState::Counts],
            $states(self::path(['landing' => 'https://x.example']), SlotKind::Landing),
        );
    }

    public function test_the_trail_ends_after_ten_hops(): void
    {
        $loop = 'https://h.example/r?to=https%3A%2F%2Fh.example%2Fr';
        $steps = Trail::through([new Hop('h.example', 'to', true)])->from($loop);
        self::assertSame(Stop::Broken, end($steps)[1]);

        $url = 'https://v.example/';
        for ($i = 0; $i < 11; $i++) {
            $url = 'https://H.example:8080/r?to='.rawurlencode($url);
        }
        $steps = Trail::through([new Hop('h.example', 'to', false)])->from($url);
        self::assertSame([11, Stop::Endless], [count($steps), end($steps)[1]]);
        $steps = Trail::through([new Hop('h.example', 'to', false)])->from(
            rawurldecode(substr($url, strlen('https://H.example:8080/r?to='))),
        );
        self::assertSame(
            [11, Stop::Landed, 'https://v.example/'],
            [count($steps), end($steps)[1], end($steps)[0]],
        );
    }

    public function test_ads_that_share_their_texts_are_traced_as_each_by_itself(): void
    {
        $above = self::path(
            ['template' => '{landing}?src=nq&t={term}'],
            ['suffix' => 's={ad.id}&c={my.name}'],
            custom: ['name' => 'isle'],
        )->nodes;
        $routes = new Routes(new Settings(), [], new TemplateReader(Make::northquay()));
        foreach (
            [
                ['7031', 'Deck', 'https://v.example/b'],
                ['7032', 'Rail', 'https://v.example/b'],
                ['7033', 'Mast', 'https://v.example/c#x'],
                ['7034', 'Keel', 'https://v.example/b'],
            ] as [$id, $name, $landing]
        ) {
            $path = new Path(Make::northquay(), [
                ...array_slice($above, 0, 3),
                new Node(
                    'ad',
                    $id,
                    $name,
                    null,
                    ['landing' => $landing],
                    $id === '7034' ? ['name' => 'keel'] : [],
                ),
            ]);
            foreach ([['keyword.text' => 'a b', 'click.id' => 'X'], ['click.id' => 'Y']] as $context) {
                self::assertEquals(Route::of($path)->trace($context), $routes->trace($path, $context));
            }
        }
    }

    public function test_no_landing_url_means_no_url_at_all(): void
    {
        $trace = Route::of(self::path(['template' => '{landing}?a=1'], landing: ' '))->trace([]);
        self::assertSame(
            [null, null, null, [], null, [], []],
            [
                $trace->clickUrl,
                $trace->browserUrl,
                $trace->backgroundUrl,
                $trace->trail,
                $trace->landed,
                $trace->arrival,
                $trace->segments,
            ],
        );
    }

    public function test_finds_where_each_arrived_pair_was_sent(): void
    {
        $path = self::path([
            'template' => 'https://h.example/r?to={landing.enc}&t={term}',
            'suffix' => 'utm_x={ad.id}&e={term}',
        ]);
        $trace = Route::of($path, hops: [new Hop('h.example', 'to', true, [['hg', 'H']])])->trace([
            'click.id' => 'Q',
            'keyword.text' => '',
        ]);

        self::assertSame(
            ['utm_x:token:ad.id', 'e:suffix:', 'nqcid:click-id:nqcid', 't:text:', 'hg:nowhere'],
            array_map(
                static fn (array $pair, ?Origin $o): string => $pair[0]
                    .':'
                    .($o === null ? 'nowhere' : "{$o->role->value}:{$o->token}"),
                $trace->arrival,
                Provenance::of($trace),
            ),
        );
    }
}
