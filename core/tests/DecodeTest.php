<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\AccountReader;
use Vestigon\Core\Command\DecodeCommand;
use Vestigon\Core\Decode\Decoder;
use Vestigon\Core\Decode\Fit;
use Vestigon\Core\Decode\History;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Proof\Contexts;
use Vestigon\Core\Trace\Route;

/** Landing URLs read back to the ads and clicks that made them. */
final class DecodeTest extends TestCase
{
    private const NEW = 'utm_source=northquay&utm_content={ad.id}&utm_term={term}&d={device}';

    private const OLD = 'src=nq&ad={ad.id}';

    /** @return iterable<string, array{Dialect|null}> null: platforms that nobody has seen */
    public static function platforms(): iterable
    {
        foreach (Shipped::all() as $id => $dialect) {
            yield $id => [$dialect];
        }
        yield 'unseen' => [null];
    }

    /** Every click that the engine can make, hostile values among them, is read back to the ad that made it. */
    #[DataProvider('platforms')]
    public function test_every_click_is_read_back_to_its_ad(?Dialect $platform): void
    {
        mt_srand(4);
        $clicks = 0;
        for ($i = 0; $i < 40; $i++) {
            $dialect = $platform ?? RandomDialects::dialect();
            $account = RandomAccounts::account($dialect, RandomAccounts::plan());
            $decoder = new Decoder(new History($account));
            foreach ($account->ads() as $ad => $path) {
                $route = Route::of($path, $account->settings, $account->hops);
                foreach (Contexts::all($route->fields(), $dialect, $path->campaignType()) as $context) {
                    $landed = $route->trace($context)->landed;
                    if ($landed === null) {
                        continue;
                    }
                    $clicks++;
                    $fits = $decoder->fits($landed);
                    foreach ($fits as $fit) {
                        self::assertSame($landed, $fit->trace->landed, 'who is told makes the same URL');
                    }
                    self::assertContains(
                        (string) $ad,
                        array_map(static fn (Fit $f): string => $f->version->ad, $fits),
                        $landed,
                    );
                }
            }
        }
        self::assertGreaterThan(100, $clicks);
    }

    /** The same text with a fact that one ad has, one has empty, and one does not have at all. */
    public function test_ads_that_lack_a_fact_are_read_back_beside_those_that_have_it(): void
    {
        $dialect = Shipped::dialect('bannerloom') ?? self::fail();
        $banner = static fn (string $id, array $facts): array => [
            'id' => $id,
            'parent' => 'c',
            'level' => 'banner',
            'name' => 'B',
            'slots' => ['landing' => 'https://velmar.example/?w=^^wide^^&b=^^banner^^'],
            'attributes' => $facts,
        ];
        $account = AccountReader::read(
            new Cursor(['format' => 'vestigon.account/1', 'dialect' => 'bannerloom', 'nodes' => [
                ['id' => 'a', 'level' => 'account', 'name' => 'A'],
                ['id' => 'c', 'parent' => 'a', 'level' => 'campaign', 'name' => 'C'],
                $banner('1', ['width' => '728']),
                $banner('2', []),
                $banner('3', ['width' => '']),
                $banner('4', ['height' => '90']),
            ]]),
            $dialect,
        );
        $decoder = new Decoder(new History($account));

        foreach ($account->ads() as $ad => $path) {
            $landed = (string) Route::of($path, $account->settings)->trace([])->landed;
            $fits = array_map(static fn (Fit $f): string => $f->version->ad, $decoder->fits($landed));
            self::assertSame([(string) $ad], $fits, $landed);
        }
    }

    /** @return array<string, mixed> two ads of one group; the suffix of their account has changed in October */
    private static function account(): array
    {
        $ad = static fn (string $id): array => [
            'id' => $id,
            'parent' => 'g',
            'level' => 'ad',
            'name' => "Ad {$id}",
            'slots' => ['landing' => 'https://velmar.example/book'],
        ];

        return [
            'format' => 'vestigon.account/1',
            'dialect' => 'northquay-search',
            'settings' => ['clickId' => true],
            'nodes' => [
                ['id' => 'a', 'level' => 'account', 'name' => 'A', 'slots' => ['suffix' => self::NEW]],
                ['id' => 'c', 'parent' => 'a', 'level' => 'campaign', 'name' => 'C', 'type' => 'text'],
                ['id' => 'g', 'parent' => 'c', 'level' => 'group', 'name' => 'G'],
                $ad('7031'),
                $ad('7032'),
            ],
            'texts' => [
                ['node' => 'a', 'slot' => 'suffix', 'text' => self::OLD, 'until' => '2026-10-01T10:00:00+02:00'],
                ['node' => 'a', 'slot' => 'suffix', 'text' => self::NEW, 'since' => '2026-10-01T08:00:00Z'],
            ],
        ];
    }

    /**
     * @param array<string, mixed> $more
     * @return list<array<string, mixed>>
     */
    private static function found(string $url, ?string $at = null, array $more = []): array
    {
        $one = ['url' => $url] + ($at === null ? [] : ['at' => $at]);
        $request = $more + ['urls' => [$one], 'accounts' => [self::account()]];

        return (new DecodeCommand(Shipped::all()))->answer(new Cursor($request))->document['urls'][0]['found'];
    }

    public function test_what_was_clicked_and_on_what_is_read_out_of_the_url(): void
    {
        $url = 'https://velmar.example/book?utm_source=northquay&utm_content=7032'
            .'&utm_term=ferry%20%26%20rail&d=m&nqcid=Q1';
        $found = self::found($url);
        self::assertCount(1, $found);
        self::assertSame(
            ['7032', 'fit', 'whole', '2026-10-01T08:00:00.000Z', null],
            [$found[0]['node'], $found[0]['by'], $found[0]['fit'], $found[0]['since'], $found[0]['until']],
        );
        $values = (array) $found[0]['values'];
        self::assertSame(
            ['7032', 'ferry & rail', 'mobile', 'Q1'],
            [$values['ad.id'], $values['keyword.text'], $values['device'], $values['click.id']],
        );
        self::assertSame($url, implode('', array_column($found[0]['segments'], 'text')));
    }

    public function test_urls_of_years_ago_are_read_by_the_texts_of_their_day(): void
    {
        $url = 'https://velmar.example/book?src=nq&ad=7031&nqcid=Q1';
        $found = self::found($url);
        self::assertSame(
            ['7031', null, '2026-10-01T08:00:00.000Z'],
            [$found[0]['node'], $found[0]['since'], $found[0]['until']],
        );
        self::assertSame('7031', self::found($url, '2026-10-01T07:59:59.999Z')[0]['node']);
        self::assertSame([], self::found($url, '2026-10-01T08:00:00Z'), 'that text stood there no more');
    }

    public function test_ads_that_the_texts_cant_tell_apart_are_all_told(): void
    {
        $account = self::account();
        $account['nodes'][0]['slots']['suffix'] = 'utm_source=northquay';
        unset($account['texts']);
        $found = self::found(
            'https://velmar.example/book?utm_source=northquay&nqcid=Q1',
            more: ['accounts' => [$account]],
        );
        self::assertSame(['7031', '7032'], array_column($found, 'node'));
    }

    public function test_a_click_id_and_a_key_of_the_plan_name_ads_whose_texts_do_not_fit(): void
    {
        $plan = [
            'format' => 'vestigon.plan/1',
            'id' => 'p',
            'title' => 'P',
            'clickId' => 'required',
            'parameters' => [['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]]],
        ];
        $more = ['plan' => $plan, 'clicks' => ['Q1' => '7032']];
        $found = self::found('https://velmar.example/book?nqcid=Q1&utm_content=7031&mended=by-hand', more: $more);
        self::assertSame(
            [['7032', 'click-id', 'part'], ['7031', 'key', 'part']],
            array_map(static fn (array $f): array => [$f['node'], $f['by'], $f['fit']], $found),
        );
        $whole = self::found(
            'https://velmar.example/book?utm_source=northquay&utm_content=7032&utm_term=x&d=m&nqcid=Q1',
            more: $more,
        );
        self::assertSame(['click-id', 'whole'], [$whole[0]['by'], $whole[0]['fit']]);
    }

    /** @return iterable<string, array{string}> */
    public static function strangers(): iterable
    {
        yield 'nothing' => [''];
        yield 'no URL' => ['ferry timetable'];
        yield 'another page' => ['https://velmar.example/other?nqcid=Q1'];
        yield 'another host' => ['https://elsewhere.example/book?src=nq&ad=7031&nqcid=Q1'];
        yield 'an ad that there is not' => ['https://velmar.example/book?src=nq&ad=9999&nqcid=Q1'];
        yield 'a character more' => ['https://velmar.example/book?src=nq&ad=7031&nqcid=Q1&'];
        yield 'very long' => ['https://velmar.example/book?'.str_repeat('a=b&', 25_000)];
        yield 'bytes' => ["https://velmar.example/book?\xff\xfe"];
    }

    #[DataProvider('strangers')]
    public function test_what_no_ad_can_have_made_is_told_of_none(string $url): void
    {
        self::assertSame([], self::found($url));
    }

    public function test_what_cant_be_used_is_named_with_its_place(): void
    {
        $account = self::account();
        $account['texts'][0]['node'] = 'z';
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('accounts[0].texts[0].node: there is no node "z"');
        self::found('https://velmar.example/', more: ['accounts' => [$account]]);
    }
}
