<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Compile\Carrier;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Policy;
use Vestigon\Core\Compile\Redirect;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Delivery;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/**
 * Click trackers that are there already: kept, with the landing URL inside encoded once for each hop, which is how
 * often they decode it.
 */
final class RedirectTest extends TestCase
{
    /** @return list<Hop> */
    private static function hops(bool $outer = true, bool $inner = true): array
    {
        return [new Hop('go.example', 'to', $outer), new Hop('in.example', 'u', $inner)];
    }

    /** @return iterable<string, array{string, bool, string}> template, does it carry, mended */
    public static function templates(): iterable
    {
        yield 'straight' => ['{landing}?a=1', true, '{landing}?a=1'];
        yield 'encoded with no hop' => ['{landing.enc}?a=1', false, '{landing}?a=1'];
        yield 'one hop' => [
            'https://go.example/r?to={landing.enc}&a=1',
            true,
            'https://go.example/r?to={landing.enc}&a=1',
        ];
        yield 'one hop, decides by its place' => [
            'https://go.example/r?to={landing}',
            true,
            'https://go.example/r?to={landing}',
        ];
        yield 'one hop, raw inside' => [
            'https://go.example/r?to={landing.raw}&a=1',
            false,
            'https://go.example/r?to={landing}&a=1',
        ];
        yield 'two hops' => [
            'https://go.example/r?x=1&to=https%3A%2F%2Fin.example%2F%3Fu%3D{landing.enc2}&a=1',
            true,
            'https://go.example/r?x=1&to=https%3A%2F%2Fin.example%2F%3Fu%3D{landing.enc2}&a=1',
        ];
        yield 'two hops, encoded once' => [
            'https://go.example/r?to=https%3A%2F%2Fin.example%2F%3Fu%3D{landing.enc}',
            false,
            'https://go.example/r?to=https%3A%2F%2Fin.example%2F%3Fu%3D{landing.enc2}',
        ];
        yield 'a hop with a user and a port' => [
            'https://u@go.example:8443/r?to={landing.enc}',
            true,
            'https://u@go.example:8443/r?to={landing.enc}',
        ];
        yield 'a host inside the user' => [
            'https://go.example@no.example/r?to={landing.enc}',
            false,
            'https://go.example@no.example/r?to={landing.enc}',
        ];
        yield 'marks of our own' => [
            "https://go.example/r?to=\x010\x01&x=\x019\x01",
            false,
            "https://go.example/r?to=\x010\x01&x=\x019\x01",
        ];
        yield 'unknown host' => [
            'https://no.example/r?to={landing.enc}',
            false,
            'https://no.example/r?to={landing.enc}',
        ];
        yield 'leads elsewhere' => [
            'https://go.example/r?to=https%3A%2F%2Fno.example%2F',
            false,
            'https://go.example/r?to=https%3A%2F%2Fno.example%2F',
        ];
    }

    #[DataProvider('templates')]
    public function test_reads_the_way_to_the_page(string $template, bool $carries, string $mended): void
    {
        $dialect = Shipped::dialect('northquay-search') ?? self::fail();
        $redirect = Redirect::of((new TemplateReader($dialect))->read($template), self::hops());

        self::assertSame([$carries, $mended], [$redirect->carries(), (string) $redirect->mended($dialect)]);
    }

    public function test_a_hop_that_keeps_parameters_to_itself_carries_nothing(): void
    {
        $reader = new TemplateReader(Shipped::dialect('northquay-search') ?? self::fail());
        $template = $reader->read('https://go.example/r?to=https%3A%2F%2Fin.example%2F%3Fu%3D{landing.enc2}');

        self::assertFalse(Redirect::of($template, self::hops(inner: false))->carries());
        self::assertFalse(Redirect::of($template, self::hops(outer: false))->carries());
    }

    public function test_takes_pairs_out_of_destinations_inside_destinations(): void
    {
        $reader = new TemplateReader(Shipped::dialect('northquay-search') ?? self::fail());
        $without = static fn (string $t): string => Redirect::without(
            $reader
                ->read($t)
                ->query(false)
                ->without(['utm_source']),
            ['utm_source'],
        );

        self::assertSame(
            'https://go.example/r?to=https%3A%2F%2Fin.example%2F%3Fu%3D{landing.enc2}%2526ref%253D1%26k%3D2&a=1',
            $without(
                'https://go.example/r?to=https%3A%2F%2Fin.example%2F%3Fu%3D{landing.enc2}'
                    .'%2526utm_source%253Dx%2526ref%253D1%26utm_source%3Dy%26k%3D2&utm_source=z&a=1',
            ),
        );
        self::assertSame(
            'https://go.example/r?to={landing.enc}%3Fref%3D1%26k%3D2&a=1',
            $without(
                'https://go.example/r?to={landing.enc}%3Futm_source%26ref%3D1%26utm_source%26k%3D2&utm_source&a=1',
            ),
        );
    }

    private static function account(string $template, array $hops, ?Delivery $delivery = null): Account
    {
        $account = Make::account(
            [
                ['c1', 'acc', 'campaign', 'Island Hopper', 'text'],
                ['g1', 'c1', 'group', 'Foot'],
                ['a1', 'g1', 'ad', 'Deck', 'https://velmar.example/book?lang=en&day=2#times'],
            ],
            ['acc' => ['template' => $template]],
            $hops,
        );

        return new Account(
            $account->dialect,
            new Settings($account->settings->clickId, null, $delivery),
            $account->hops,
            $account->nodes,
            $account->parents,
        );
    }

    /** @return array<string, string|null> */
    private static function writes(Account $account, Carrier $carrier): array
    {
        $compiled = Compiler::compile($account, Make::plan(), new Policy(carrier: $carrier));
        self::assertSame([], $compiled->unmet);
        $texts = [];
        foreach ($compiled->writes as $w) {
            $texts["{$w->node} ".($w->slot->value ?? $w->custom)] = $w->after;
        }

        return $texts;
    }

    public function test_behind_two_hops_the_plan_goes_into_the_landing_url_or_along_with_the_click(): void
    {
        $template = 'https://go.example/r?to=https%3A%2F%2Fin.example%2F%3Fu%3D{landing.enc2}&a=1';
        $plan =
            'utm_source=northquay&utm_medium=cpc&utm_campaign={my.campaign_name}&utm_term={term}&utm_content={ad.id}';

        self::assertSame(
            ['c1 campaign_name' => 'island_hopper', 'acc suffix' => $plan],
            self::writes(self::account($template, self::hops()), Carrier::Suffix),
        );
        self::assertSame(
            ['c1 campaign_name' => 'island_hopper', 'acc template' => "{$template}&{$plan}"],
            self::writes(self::account($template, self::hops()), Carrier::Template),
        );
        self::assertSame(
            ['c1 campaign_name' => 'island_hopper', 'acc suffix' => $plan],
            self::writes(self::account($template, self::hops(inner: false)), Carrier::Template),
            'the inner hop keeps parameters to itself',
        );
    }

    public function test_the_wrong_depth_is_put_right(): void
    {
        $writes = self::writes(
            self::account(
                'https://go.example/r?to=https%3A%2F%2Fin.example%2F%3Fu%3D{landing.enc}',
                self::hops(),
            ),
            Carrier::Suffix,
        );

        self::assertSame(
            'https://go.example/r?to=https%3A%2F%2Fin.example%2F%3Fu%3D{landing.enc2}',
            $writes['acc template'],
        );
    }

    public function test_in_parallel_delivery_nothing_is_put_on_a_hop(): void
    {
        $writes = self::writes(
            self::account('https://go.example/r?to={landing.enc}', self::hops(), Delivery::Parallel),
            Carrier::Template,
        );

        self::assertArrayHasKey('acc suffix', $writes);
        self::assertArrayNotHasKey('acc template', $writes);
    }

    public function test_a_text_that_is_too_long_goes_without_the_least_important_keys(): void
    {
        $account = Make::account(
            [
                ['c1', 'acc', 'campaign', 'Island Hopper', 'text'],
                ['g1', 'c1', 'group', 'Foot'],
                ['a1', 'g1', 'ad', 'Deck', 'https://velmar.example/book'],
            ],
            ['acc' => ['suffix' => 'aff='.str_repeat('9', 940)]],
        );
        $compiled = Compiler::compile($account, Make::plan(), new Policy(carrier: Carrier::Suffix));

        $suffix = array_values(array_filter($compiled->writes, static fn ($w): bool => $w->slot !== null))[0]
            ->after;
        self::assertSame(
            'aff='
                .str_repeat('9', 940)
                .'&utm_source=northquay&utm_medium=cpc&utm_campaign={my.campaign_name}',
            $suffix,
        );
        self::assertContains(
            'acc utm_content: Velmar Ferries: left out: with it the suffix would have 1048 characters, Northquay '
                .'Search takes 1024',
            array_map(static fn ($u): string => "{$u->node} {$u->key}: {$u->reason}", $compiled->unmet),
        );
    }

    /**
     * A portal's only place for a tracker is the landing URL: behind it where the hop passes parameters on, else
     * inside, encoded once more.
     */
    public function test_a_tracker_s_link_as_landing_url_carries_the_plan_behind_it_or_inside(): void
    {
        $link = 'https://go.example/r?to=https%3A%2F%2Fv.example%2Fp%3Fa%3D1';
        $nodes = [
            'A' => new Node('account', '1', 'A'),
            'C' => new Node('campaign', '2', 'Sea & Sun', 'text'),
            'G' => new Node('group', '3', 'G'),
            'D' => new Node('ad', '4', 'D', null, ['landing' => $link]),
        ];
        $plan = PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'parameters' => [['key' => 'utm_campaign', 'parts' => [['field' => 'campaign.name']]]],
            ]),
        );
        $after = static function (bool $appends) use ($nodes, $plan): array {
            $account = new Account(
                Shipped::dialect('oldgate-portal') ?? self::fail(),
                new Settings(),
                [new Hop('go.example', 'to', $appends)],
                $nodes,
                ['A' => null, 'C' => 'A', 'G' => 'C', 'D' => 'G'],
            );
            $compiled = Compiler::compile($account, $plan);

            return [array_map(static fn (Write $w): ?string => $w->after, $compiled->writes), $compiled->unmet];
        };

        self::assertSame([["{$link}&utm_campaign=Sea%20%26%20Sun"], []], $after(true));
        self::assertSame([["{$link}%26utm_campaign%3DSea%2520%2526%2520Sun"], []], $after(false));
    }
}
