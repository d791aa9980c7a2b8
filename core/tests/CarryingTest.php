<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Compile\Compiled;
use Vestigon\Core\Compile\Compiler;
use Vestigon\Core\Compile\Unmet;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\DialectReader;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

/** How single keys are carried, where it is easy to get wrong. */
final class CarryingTest extends TestCase
{
    public function test_a_token_that_spells_its_values_in_shape_does_where_a_slug_is_wanted(): void
    {
        self::assertSame(
            ['account suffix = d={device}'],
            self::told(
                self::compiled(self::account(Make::northquay()), [
                    ['key' => 'd', 'parts' => [['field' => 'device']], 'shape' => 'slug'],
                ]),
            ),
        );
    }

    public function test_no_more_custom_parameters_than_the_platform_takes_those_that_are_there_among_them(): void
    {
        $fields = array_map(static fn (int $i): string => "campaign.fact{$i}", range(1, 7));
        $account = self::account(
            Make::northquay(),
            campaign: [
                'attributes' => array_fill_keys(
                    array_map(static fn (string $f): string => substr($f, 9), $fields),
                    'A b',
                ),
                'custom' => ['theirs' => '1'],
            ],
        );
        $compiled = self::compiled(
            $account,
            array_map(
                static fn (string $f, int $i): array => ['key' => "k{$i}", 'parts' => [['field' => $f]]],
                $fields,
                array_keys($fields),
            ),
        );

        self::assertSame([], $compiled->unmet);
        self::assertLessThanOrEqual(
            6,
            count(Write::applied($account, $compiled->writes)->nodes['campaign']->custom),
        );
        self::assertSame('1', Write::applied($account, $compiled->writes)->nodes['campaign']->custom['theirs']);
    }

    public function test_names_of_custom_parameters_are_words(): void
    {
        $account = self::account(
            Make::northquay(),
            campaign: ['attributes' => ['destination_country' => 'Far Away']],
        );

        self::assertSame(
            'campaign_destination',
            self::compiled($account, [['key' => 'k', 'parts' => [['field' => 'campaign.destination_country']]]])
                ->writes[0]->custom,
        );
    }

    public function test_publishers_names_do_not_freeze(): void
    {
        $document = json_decode((string) file_get_contents(__DIR__.'/../dialects/hearthring.json'), true);
        $document['id'] = 'hearthring-sites';
        $document['tokens'][] = ['name' => 'site', 'kind' => 'value', 'field' => 'publisher.name'];
        $compiled = self::compiled(self::account(DialectReader::read(new Cursor($document))), [
            ['key' => 'k', 'parts' => [['field' => 'publisher.name']]],
        ]);

        self::assertSame([['post suffix = k=[site]'], []], [self::told($compiled), $compiled->unmet]);
    }

    public function test_a_part_that_begins_with_an_encoded_character_is_encoded_once_beside_a_token(): void
    {
        foreach (
            [
                'bannerloom' => 'banner landing = https://v.example/b?k=^^banner^^%7Cx',
                'reedrail' => 'account suffix = k=(:teaser:)%7Cx',
            ] as $id => $write
        ) {
            self::assertSame(
                [$write],
                self::told(
                    self::compiled(self::account(Shipped::dialect($id) ?? self::fail()), [
                        ['key' => 'k', 'parts' => [['field' => 'ad.id'], ['text' => '|x']]],
                    ]),
                ),
            );
        }
    }

    public function test_a_key_that_a_hop_adds_is_left_to_it_and_all_others_are_given(): void
    {
        $account = self::account(Make::northquay(), 'https://go.example/r?to=https%3A%2F%2Fv.example%2Fb', [
            new Hop('go.example', 'to', true, [['utm_source', 'hop']]),
        ]);
        $compiled = self::compiled($account, [
            ['key' => 'utm_source', 'parts' => [['text' => 'northquay']]],
            ['key' => 'utm_medium', 'parts' => [['text' => 'cpc']]],
        ]);

        self::assertSame(['account suffix = utm_medium=cpc'], self::told($compiled));
        self::assertSame(
            ['ad utm_source: a redirect on the way adds utm_source itself'],
            array_map(static fn (Unmet $u): string => "{$u->node} {$u->key}: {$u->reason}", $compiled->unmet),
        );
    }

    /**
     * Behind the raw landing URL it comes to stand behind the page's fragment: in the suffix it arrives, and the
     * fragment is whole again.
     */
    public function test_a_foreign_parameter_that_spoils_the_page_is_moved_to_where_it_arrives(): void
    {
        $account = self::account(
            Make::northquay(),
            'https://v.example/b#rooms',
            campaign: ['slots' => ['template' => '{landing}?partner=9&utm_source=old']],
        );
        $compiled = self::compiled($account, [['key' => 'utm_source', 'parts' => [['text' => 'northquay']]]]);

        self::assertSame(
            [['campaign suffix = partner=9&utm_source=northquay', 'campaign template = '], []],
            [self::told($compiled), $compiled->unmet],
        );
    }

    public function test_a_fragment_of_the_template_s_own_is_left_out_and_parameters_in_it_become_parameters(): void
    {
        $account = self::account(
            Shipped::dialect('pellworth-search') ?? self::fail(),
            'https://v.example/b#rooms',
            campaign: ['slots' => ['template' => '{LandingPage}#from-pellworth&partner=9']],
        );
        $compiled = self::compiled($account, [['key' => 'utm_source', 'parts' => [['text' => 'pellworth']]]]);

        self::assertSame(
            [['campaign template = {LandingPage}?partner=9&utm_source=pellworth'], []],
            [self::told($compiled), $compiled->unmet],
        );
    }

    /**
     * The tracker takes both, `?to=…?a=1` and `?to=…&a=1`; a second `?` is right by chance only, and one rule of ours
     * calls it wrong.
     */
    public function test_behind_a_landing_url_with_a_query_a_template_goes_on(): void
    {
        $account = self::account(
            Shipped::dialect('pellworth-search') ?? self::fail(),
            'https://go.example/r?to=https%3A%2F%2Fv.example%2F',
            [new Hop('go.example', 'to', true, [])],
        );
        $compiled = self::compiled($account, [
            ['key' => 'utm_source', 'parts' => [['text' => 'pellworth']]],
            ['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]],
        ]);

        self::assertSame(
            [['account template = {LandingPage}&utm_source=pellworth&utm_content={AdNo}'], []],
            [self::told($compiled), $compiled->unmet],
        );
    }

    public function test_an_ad_s_own_landing_url_is_not_listed_as_put_aside(): void
    {
        $compiled = self::compiled(
            self::account(
                Shipped::dialect('oldgate-portal') ?? self::fail(),
                'https://v.example/b?utm_source=old',
            ),
            [['key' => 'utm_source', 'parts' => [['text' => 'oldgate']]]],
        );

        self::assertSame(
            [['ad landing = https://v.example/b?utm_source=oldgate'], []],
            [self::told($compiled), $compiled->overridden],
        );
    }

    public function test_what_can_not_be_given_is_told_once_and_by_its_cause(): void
    {
        $compiled = self::compiled(self::account(Shipped::dialect('oldgate-portal') ?? self::fail()), [
            ['key' => 'kw', 'parts' => [['field' => 'keyword.text']], 'required' => true],
        ]);

        self::assertSame(
            ["ad kw: Oldgate Portal can't give keyword.text on text campaigns"],
            array_map(static fn (Unmet $u): string => "{$u->node} {$u->key}: {$u->reason}", $compiled->unmet),
        );
    }

    /**
     * One element of each level, keyed by its level.
     *
     * @param list<Hop> $hops
     * @param array<string, array<string, string>> $campaign more of the campaign
     */
    private static function account(
        Dialect $dialect,
        string $landing = 'https://v.example/b',
        array $hops = [],
        array $campaign = [],
    ): Account {
        $nodes = $parents = [];
        $above = null;
        foreach ($dialect->levels as $i => $level) {
            $more = match ($level->role) {
                Role::Campaign => ['type' => $dialect->campaignTypes[0], ...$campaign],
                Role::Ad => ['slots' => ['landing' => $landing]],
                default => [],
            };
            $nodes[$level->id] = new Node(
                ...['level' => $level->id, 'id' => "7{$i}", 'name' => $level->label, ...$more],
            );
            $parents[$level->id] = $above;
            $above = $level->id;
        }

        return new Account($dialect, new Settings(), $hops, $nodes, $parents);
    }

    /** @param list<array<string, mixed>> $parameters */
    private static function compiled(Account $account, array $parameters): Compiled
    {
        return Compiler::compile($account, self::plan($parameters));
    }

    /** @param list<array<string, mixed>> $parameters */
    private static function plan(array $parameters): Plan
    {
        return PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'parameters' => $parameters,
            ]),
        );
    }

    /** @return list<string> */
    private static function told(Compiled $compiled): array
    {
        return array_map(
            static fn (Write $w): string => "{$w->node} ".($w->slot->value ?? $w->custom)." = {$w->after}",
            $compiled->writes,
        );
    }
}
