<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Findings\Flaw;
use Vestigon\Core\Proof\Prover;
use Vestigon\Core\Proof\RealClick;
use Vestigon\Core\Proof\State;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Settings;

final class ProofTest extends TestCase
{
    private const RIGHT = 'utm_source=northquay&utm_medium=cpc&utm_campaign={my.n}&utm_term={term}&utm_content={ad.id}';

    /** @param array<string, string> $slots of the account */
    private static function account(
        array $slots,
        string $landing = 'https://v.example/b',
        ?Settings $settings = null,
    ): Account {
        $account = Make::account(
            [
                ['c1', 'acc', 'campaign', 'Isle One', 'text'],
                ['g1', 'c1', 'group', 'Foot'],
                ['a1', 'g1', 'ad', 'Deck', $landing],
            ],
            ['acc' => $slots],
            [new Hop('h.example', 'to', false)],
        );

        return new Account(
            $account->dialect,
            $settings ?? $account->settings,
            $account->hops,
            ['c1' => $account->nodes['c1']->withCustom('n', 'isle_one')] + $account->nodes,
            $account->parents,
        );
    }

    /** @return iterable<string, array{Account, list<string>}> an account, and fault and key of each counterexample */
    public static function accounts(): iterable
    {
        yield 'a suffix with everything' => [self::account(['suffix' => self::RIGHT]), []];
        yield 'a template with everything' => [self::account(['template' => '{landing}?'.self::RIGHT]), []];
        yield 'through a hop, at the right depth' => [
            self::account(['template' => 'https://h.example/r?to={landing.enc}', 'suffix' => self::RIGHT]),
            [],
        ];
        yield 'a capital letter' => [
            self::account(['suffix' => str_replace('=cpc', '=CPC', self::RIGHT)]),
            ['wrong-value utm_medium'],
        ];
        yield 'a key that is not there' => [
            self::account(['suffix' => str_replace('&utm_term={term}', '', self::RIGHT)]),
            ['missing-key utm_term'],
        ];
        yield 'a key twice' => [
            self::account(['suffix' => self::RIGHT], 'https://v.example/b?utm_source=x'),
            ['duplicate-key utm_source'],
        ];
        yield 'only on mobile' => [
            self::account([
                'suffix' => str_replace('utm_medium=cpc', '{phone-only:utm_medium=cpc}', self::RIGHT),
            ]),
            ['missing-key utm_medium'],
        ];
        yield 'swallowed by the fragment' => [
            self::account(['template' => '{landing}?'.self::RIGHT], 'https://v.example/b#x'),
            [
                'missing-key utm_source',
                'missing-key utm_medium',
                'missing-key utm_campaign',
                'missing-key utm_term',
                'missing-key utm_content',
                'landing-distorted ',
            ],
        ];
        yield 'free text breaks out of a raw hop' => [
            self::account(['template' => 'https://h.example/r?to={landing.raw}', 'suffix' => self::RIGHT]),
            [
                'missing-key utm_medium',
                'missing-key utm_campaign',
                'missing-key utm_term',
                'missing-key utm_content',
                'click-id-lost nqcid',
            ],
        ];
        yield 'no click ID' => [
            self::account(['suffix' => self::RIGHT], settings: new Settings(clickId: false)),
            ['click-id-lost nqcid'],
        ];
        yield 'a trail that breaks' => [
            self::account(['template' => 'https://h.example/r?where={landing.enc}', 'suffix' => self::RIGHT]),
            ['broken-trail '],
        ];
        yield 'no landing URL' => [self::account(['suffix' => self::RIGHT], ' '), ['broken-trail ']];
    }

    /** @param list<string> $expected */
    #[DataProvider('accounts')]
    public function test_finds_each_fault_once_and_no_other(Account $account, array $expected): void
    {
        $verdict = Prover::for($account, Make::plan())->verdict($account->pathTo('a1'));

        self::assertSame(
            $expected,
            array_map(static fn ($c): string => "{$c->code} {$c->key}", $verdict->counterexamples),
        );
        self::assertSame($expected === [], $verdict->state === State::Proven);
        foreach ($verdict->counterexamples as $c) {
            self::assertMatchesRegularExpression('/^\S.*\.$/su', $c->reason);
        }
    }

    public function test_a_real_click_is_held_against_the_plan_and_against_what_the_texts_are_known_to_lack(): void
    {
        $account = self::account(['suffix' => str_replace('&utm_term={term}', '', self::RIGHT)]);
        $click = static fn (string $url, bool $landed = true): RealClick => new RealClick(
            [$url],
            $landed,
            ['keyword.text' => 'ferry', 'click.id' => 'K1'],
            $account->pathTo('a1'),
            Make::plan(),
            $account->settings,
            $account->hops,
        );
        $told = static fn (array $flaws): array => array_map(
            static fn (Flaw $f): string => trim("{$f->code} {$f->key}"),
            $flaws,
        );
        $texts = 'https://v.example/b?utm_source=northquay&utm_medium=cpc&utm_campaign=isle_one&utm_content=a1';

        self::assertSame([], $told($click("{$texts}&utm_term=ferry&nqcid=K1")->faults()));
        self::assertSame(
            [['missing-key utm_term'], []],
            [$told($click("{$texts}&nqcid=K1")->faults()), $told($click("{$texts}&nqcid=K1")->surprises())],
            'the text lacks it',
        );
        self::assertSame(
            ['wrong-value utm_medium'],
            $told($click(str_replace('=cpc', '=CPC', $texts).'&nqcid=K1')->surprises()),
        );
        self::assertSame(['click-id-lost nqcid'], $told($click($texts)->surprises()));
        self::assertSame(['broken-trail'], $told($click("{$texts}&nqcid=K1", landed: false)->surprises()));
    }

    public function test_an_ad_that_sends_no_key_is_untracked(): void
    {
        $account = self::account(['suffix' => 'other=1']);
        self::assertSame(
            State::Untracked,
            Prover::for($account, Make::plan())->verdict($account->pathTo('a1'))->state,
        );
    }

    public function test_a_counterexample_is_a_click_that_shows_the_fault(): void
    {
        $account = self::account([
            'suffix' => str_replace(
                'utm_medium=cpc',
                '{sites-only:utm_medium=x}{search-only:utm_medium=cpc}',
                self::RIGHT,
            ),
        ]);
        $found = Prover::for($account, Make::plan())->verdict($account->pathTo('a1'))->counterexamples;

        self::assertCount(1, $found);
        self::assertSame(
            ['display', 'cpc', ['x']],
            [$found[0]->context['network'], $found[0]->expected, $found[0]->arrived],
        );
        self::assertStringContainsString('utm_medium=x', (string) $found[0]->url);
    }
}
