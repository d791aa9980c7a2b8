<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Account\Path;
use Vestigon\Core\Channel\ChannelsReader;
use Vestigon\Core\Dialect\AutoTagMode;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Findings\Campaigns;
use Vestigon\Core\Findings\Click;
use Vestigon\Core\Findings\ClickRule;
use Vestigon\Core\Findings\Finding;
use Vestigon\Core\Findings\Inspector;
use Vestigon\Core\Findings\RuleBook;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Template\TemplateReader;
use Vestigon\Core\Trace\Hop;
use Vestigon\Core\Trace\Route;
use Vestigon\Core\Trace\Settings;
use Vestigon\Core\Trace\Trace;

/** Each rule with an example of the fault, where it is, what it says, its fix, and an example without it. */
final class FindingsTest extends TestCase
{
    private static function dialect(string $id): Dialect
    {
        return Shipped::dialect($id) ?? self::fail($id);
    }

    private static function rules(): RuleBook
    {
        return RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped());
    }

    /**
     * Columns: code, dialect, slot, text with the fault, the stretch it is about, what the reason says, the text as
     * fixed (false: no fix), and texts without the fault.
     *
     * @return iterable<string, array{
     *     string, string, string, string, string|null, string, string|false|null, list<string>
     * }>
     */
    public static function texts(): iterable
    {
        yield 'an unclosed token' => [
            'unclosed-token',
            'northquay-search',
            'suffix',
            'c={campaign.id&t={term}',
            '{campaign.id',
            'no closing }',
            'c={campaign.id}&t={term}',
            ['c={campaign.id}', 'c=}'],
        ];
        yield 'an unclosed custom parameter' => [
            'unclosed-token',
            'northquay-search',
            'suffix',
            'c={my.route&t=1',
            '{my.route',
            'no closing }',
            'c={my.route}&t=1',
            ['c={my.route}'],
        ];
        yield 'a mark that is never closed' => [
            'unclosed-token',
            'hearthring',
            'suffix',
            'c=[ 1',
            '[',
            'never closed',
            false,
            ['c=[post:id]'],
        ];
        yield 'an unclosed token between equal marks' => [
            'unclosed-token',
            'mossfeed',
            'suffix',
            'a=~site~&c=~campaign',
            '~campaign',
            'no closing ~',
            'a=~site~&c=~campaign~',
            ['a=~site~'],
        ];
        yield 'an unknown token that is almost one' => [
            'unknown-token',
            'northquay-search',
            'suffix',
            'c={campaign_id}',
            '{campaign_id}',
            '{campaign.id} is meant',
            'c={campaign.id}',
            ['c={CAMPAIGN.ID}', 'c={my.x}'],
        ];
        yield 'an unknown token like no other' => [
            'unknown-token',
            'reedrail',
            'suffix',
            'c=(:weather:)',
            '(:weather:)',
            'gives nothing',
            false,
            ['c=(:teaser:)'],
        ];
        yield 'a token of another platform, in its marks' => [
            'foreign-token',
            'northquay-search',
            'suffix',
            'c=<<creative-id>>',
            '<<creative-id>>',
            "Guildloft's token for ad.id; here it is {ad.id}",
            'c={ad.id}',
            ['c=<<x>>'],
        ];
        yield 'a token of another platform, in the same marks' => [
            'foreign-token',
            'northquay-search',
            'suffix',
            'c={CampaignTitle}',
            '{CampaignTitle}',
            "Pellworth Search's token for campaign.name; Northquay Search has none",
            false,
            ['c={campaign.id}'],
        ];
        yield 'another platform\'s landing token' => [
            'foreign-token',
            'pellworth-search',
            'template',
            '{LandingPage}?r={landing}',
            '{landing}',
            'here it is {LandingPage}',
            '{LandingPage}?r={LandingPage}',
            ['{LandingPage}'],
        ];
        yield 'a token where no platform fills any' => [
            'foreign-token',
            'oldgate-portal',
            'landing',
            'https://v.example/?c=^^banner^^',
            '^^banner^^',
            "Bannerloom's token",
            false,
            ['https://v.example/?c=100%25'],
        ];
        yield 'capitals where they matter' => [
            'token-case',
            'hearthring',
            'suffix',
            'c=[Campaign:Name]',
            '[Campaign:Name]',
            '[campaign:name] is',
            'c=[campaign:name]',
            ['c=[campaign:name]'],
        ];
        yield 'a token in a plain landing URL' => [
            'token-not-here',
            'northquay-search',
            'landing',
            'https://v.example/?c={ad.id}',
            '{ad.id}',
            'fills no tokens in landing URLs',
            false,
            ['https://v.example/?c=1'],
        ];
        yield 'a token of another campaign type' => [
            'token-not-here',
            'northquay-search',
            'suffix',
            'p={product}',
            '{product}',
            'on listing campaigns only',
            false,
            ['p={term}'],
        ];
        yield 'a condition inside a custom parameter' => [
            'token-not-here',
            'northquay-search',
            'custom',
            'x{phone-only:m}',
            '{phone-only:',
            'only value tokens are filled',
            false,
            ['x{device}'],
        ];
        yield 'no landing token' => [
            'no-landing-token',
            'northquay-search',
            'template',
            '?utm_source=nq',
            null,
            'refuses it',
            '{landing}?utm_source=nq',
            ['{landing}?a=1', 'https://h.example/?to={landing.enc}', '{phone-only:{landing}}'],
        ];
        yield 'a redirect that leads nowhere' => [
            'no-landing-token',
            'northquay-search',
            'template',
            'https://h.example/r',
            null,
            'do not reach the landing page',
            false,
            ['{landing}'],
        ];
        yield 'a landing token in a suffix' => [
            'landing-token-in-suffix',
            'northquay-search',
            'suffix',
            '{landing}?a=1',
            '{landing}',
            'belongs into a template',
            'a=1',
            ['a=1'],
        ];
        yield 'a mark in front' => [
            'leading-mark',
            'northquay-search',
            'suffix',
            '?&a=1',
            '?&',
            'which the platform drops',
            'a=1',
            ['a=1'],
        ];
        yield 'a second question mark' => [
            'second-question-mark',
            'northquay-search',
            'template',
            '{landing}?a=1?b=2',
            '?',
            'the second one',
            '{landing}?a=1&b=2',
            ['{landing}?a=1&b=2', '{landing}#x?y'],
        ];
        yield 'a question mark within a suffix' => [
            'second-question-mark',
            'northquay-search',
            'suffix',
            'a=1?b=2',
            '?',
            'the second one',
            'a=1&b=2',
            ['?a=1', '?&?a=1'],
        ];
        yield 'a question mark within a landing URL' => [
            'second-question-mark',
            'northquay-search',
            'landing',
            'https://v.example/?a=1?b=2',
            '?',
            'the second one',
            'https://v.example/?a=1&b=2',
            ['https://v.example/?a=1#?b=2'],
        ];
        yield 'parameters behind a fragment' => [
            'behind-fragment',
            'northquay-search',
            'suffix',
            'a=1#x&utm_source=nq',
            'utm_source',
            'stands behind #',
            false,
            ['utm_source=nq#x'],
        ];
        yield 'a plan key behind the page\'s fragment' => [
            'behind-fragment',
            'northquay-search',
            'landing',
            'https://v.example/#utm_source=nq',
            'utm_source',
            'stands behind #',
            false,
            ['https://v.example/#tab=2'],
        ];
        yield 'a slip of the finger' => [
            'key-typo',
            'northquay-search',
            'suffix',
            'utm_sorce=nq',
            'utm_sorce',
            'utm_source is meant',
            'utm_source=nq',
            ['utm_source=nq', 'source=nq', 'ref=1'],
        ];
        yield 'another separator in a key' => [
            'key-typo',
            'northquay-search',
            'suffix',
            'utm-medium=cpc',
            'utm-medium',
            'utm_medium is meant',
            'utm_medium=cpc',
            ['utm_id=4'],
        ];
        yield 'a capital in a key of the plan' => [
            'key-typo',
            'northquay-search',
            'suffix',
            'Adgroup=1',
            'Adgroup',
            'adgroup is meant',
            'adgroup=1',
            ['adgroup=1'],
        ];
        yield 'too long' => [
            'too-long',
            'guildloft',
            'suffix',
            str_repeat('a', 501),
            null,
            'has 501 characters; Guildloft takes 500',
            false,
            [str_repeat('é', 500)],
        ];
        yield 'a custom parameter too long' => [
            'too-long',
            'northquay-search',
            'custom',
            str_repeat('a', 181),
            null,
            'takes 180',
            false,
            [str_repeat('a', 180)],
        ];
        yield 'an unsafe character' => [
            'unsafe-character',
            'northquay-search',
            'suffix',
            'a=x|y',
            '|',
            '%7C may',
            'a=x%7Cy',
            ['a=x%7Cy', "a=x:y/z?'()*"],
        ];
        yield 'a letter of another script' => [
            'unsafe-character',
            'northquay-search',
            'suffix',
            'a=é',
            'é',
            '%C3%A9 may',
            'a=%C3%A9',
            ['a=e'],
        ];
        yield 'bytes that are no text' => [
            'unsafe-character',
            'northquay-search',
            'suffix',
            "a=\xFF",
            "a=\xFF",
            'not UTF-8',
            false,
            ['a=1'],
        ];
        yield 'a capital letter' => [
            'not-lowercase',
            'northquay-search',
            'suffix',
            'utm_source=NQ',
            'NQ',
            'apart from “nq”',
            'utm_source=nq',
            ['utm_source=nq', 'ref=NQ', 'utm_source={CAMPAIGN.ID}', 'utm_source=%C3%A9', 'utm_medium=CPC-plan'],
        ];
        yield 'a space' => [
            'space-in-value',
            'northquay-search',
            'suffix',
            'utm_campaign=summer%20sale',
            'summer%20sale',
            'has a space',
            'utm_campaign=summer_sale',
            ['utm_campaign=summer_sale', 'a=1%2B1'],
        ];
        yield 'a space as a plus' => [
            'space-in-value',
            'northquay-search',
            'suffix',
            'a=summer+sale',
            'summer+sale',
            'has a space',
            'a=summer_sale',
            ['a=b'],
        ];
        yield 'an e-mail address' => [
            'personal-data',
            'northquay-search',
            'suffix',
            'u=jo.smith%40mail.example',
            'jo.smith%40mail.example',
            'an e-mail address',
            false,
            ['u=a%40b', 'u=@home'],
        ];
        yield 'a phone number' => [
            'personal-data',
            'northquay-search',
            'suffix',
            't=+44 20 7946 0958',
            '+44 20 7946 0958',
            'a phone number',
            false,
            ['t=20260101', 't=00'],
        ];
        yield 'a page over http' => [
            'insecure-landing',
            'northquay-search',
            'landing',
            'http://v.example/',
            'http://',
            'not https',
            'https://v.example/',
            ['https://v.example/', 'http://velmar.localhost:8750/x', 'http://127.0.0.1/'],
        ];
    }

    /** @param list<string> $without */
    #[DataProvider('texts')]
    public function test_finds_what_is_wrong_with_a_text(
        string $code,
        string $dialect,
        string $slot,
        string $text,
        ?string $about,
        string $says,
        string|false|null $fixed,
        array $without,
    ): void {
        $found = self::inText($dialect, $slot, $text, $code);

        self::assertCount(1, $found, "{$code} in {$text}");
        self::assertSame($about, $found[0]->at === null ? null : substr($text, $found[0]->at, $found[0]->length));
        self::assertStringContainsString($says, $found[0]->reason);
        self::assertStringEndsWith('.', $found[0]->reason);
        self::assertSame($fixed, $found[0]->fix === null ? false : $found[0]->fix->text);
        if ($fixed !== false) {
            self::assertSame([], self::inText($dialect, $slot, (string) $fixed, $code), 'the fix mends it');
        }
        foreach ($without as $good) {
            self::assertSame([], self::inText($dialect, $slot, $good, $code), "{$code} in {$good}");
        }
    }

    /** @return list<Finding> */
    private static function inText(string $dialect, string $slot, string $text, string $code): array
    {
        $dialect = self::dialect($dialect);
        $ad = $dialect->levels[count($dialect->levels) - 1]->id;
        $node =
            $slot === 'custom'
                ? new Node($ad, '1', 'Ad', null, [], ['x' => $text])
                : new Node($ad, '1', 'Ad', null, [$slot => $text]);
        $campaign = new Node($dialect->levelOf(Role::Campaign)->id ?? '', '71', 'C', $dialect->campaignTypes[0]);
        $inspector = new Inspector(self::rules(), new TemplateReader($dialect), self::plan());

        return self::only(
            $code,
            $inspector->node($node, new Path($dialect, [new Node('account', 'A', 'A'), $campaign, $node])),
        );
    }

    /**
     * @param list<Finding> $findings
     * @return list<Finding>
     */
    private static function only(string $code, array $findings): array
    {
        return array_values(array_filter($findings, static fn (Finding $f): bool => $f->code === $code));
    }

    /** @param array<string, mixed> $more */
    private static function plan(array $more = []): Plan
    {
        return PlanReader::read(
            new Cursor([
                ...[
                    'format' => 'vestigon.plan/1',
                    'id' => 'p',
                    'title' => 'P',
                    'clickId' => 'required',
                    'parameters' => [
                        ['key' => 'utm_source', 'parts' => [['text' => 'nq']]],
                        ['key' => 'utm_medium', 'parts' => [['text' => 'CPC-plan']]],
                        ['key' => 'utm_campaign', 'parts' => [['field' => 'campaign.name']]],
                        ['key' => 'adgroup', 'parts' => [['field' => 'group.id']]],
                    ],
                ],
                ...$more,
            ]),
        );
    }

    /**
     * Columns: code, dialect, slots and custom parameters from the account to the ad, settings, what the reason says
     * (null: the code must not show), node.
     *
     * @return iterable<string, array{string, string, list<array<string, string>>, Settings, string|null, string}>
     */
    public static function paths(): iterable
    {
        $on = new Settings();
        yield 'a hidden text' => [
            'overridden',
            'northquay-search',
            [['template' => '{landing}?a=1'], ['template' => '{landing}?b=1'], [], []],
            $on,
            'The template of the account does not count here: the campaign “Isle One” has its own.',
            'n1',
        ];
        yield 'no text hidden' => [
            'overridden',
            'guildloft',
            [['suffix' => 'a=1'], [], ['suffix' => 'b=1'], []],
            $on,
            null,
            '',
        ];
        yield 'a level that has no such slot' => [
            'ignored-slot',
            'hearthring',
            [['suffix' => 'a=1'], [], [], []],
            $on,
            'Hearthring has no suffix on this level',
            'n0',
        ];
        yield 'a level that has it' => [
            'ignored-slot',
            'hearthring',
            [[], [], [], ['suffix' => 'a=1']],
            $on,
            null,
            '',
        ];
        yield 'a custom parameter nobody set' => [
            'custom-parameter-undefined',
            'northquay-search',
            [['suffix' => 'c={my.route}'], [], [], []],
            $on,
            '{my.route} is set neither on the ad nor above it',
            'n0',
        ];
        yield 'a custom parameter set on the campaign' => [
            'custom-parameter-undefined',
            'northquay-search',
            [['suffix' => 'c={my.ROUTE}'], ['my.route' => 'x'], [], []],
            $on,
            null,
            '',
        ];
        yield 'a tag that the platform adds too' => [
            'auto-tag-conflict',
            'pellworth-search',
            [['template' => '{LandingPage}?utm_source=x'], [], [], []],
            new Settings(autoTags: AutoTagMode::Fill),
            'so it arrives twice',
            'n0',
        ];
        yield 'a tag that the platform replaces' => [
            'auto-tag-conflict',
            'pellworth-search',
            [[], [], [], ['landing' => 'https://v.example/?utm_source=x']],
            new Settings(autoTags: AutoTagMode::Replace),
            'puts its own in',
            'n3',
        ];
        yield 'a tag that stays' => [
            'auto-tag-conflict',
            'pellworth-search',
            [[], [], [], ['landing' => 'https://v.example/?utm_source=x']],
            new Settings(autoTags: AutoTagMode::Fill),
            'This utm_source wins',
            'n3',
        ];
        yield 'tags switched off' => [
            'auto-tag-conflict',
            'pellworth-search',
            [['template' => '{LandingPage}?utm_source=x'], [], [], []],
            $on,
            null,
            '',
        ];
        yield 'the click ID off' => [
            'click-id-off',
            'northquay-search',
            [[], [], [], []],
            new Settings(clickId: false),
            'the plan requires it',
            'n0',
        ];
        yield 'a click ID that is always on' => [
            'click-id-off',
            'hearthring',
            [[], [], [], []],
            new Settings(clickId: false),
            null,
            '',
        ];
        yield 'text copied from another campaign' => [
            'stale-literal',
            'northquay-search',
            [[], ['suffix' => 'utm_campaign=winter-ferry'], [], []],
            $on,
            '“winter-ferry”, which is the campaign “Winter Ferry”, but the ad is in “Isle One”',
            'n1',
        ];
        yield 'another campaign\'s number' => [
            'stale-literal',
            'northquay-search',
            [[], ['suffix' => 'camp=77120'], [], []],
            $on,
            'which is the campaign “Winter Ferry”',
            'n1',
        ];
        yield 'its own campaign\'s name' => [
            'stale-literal',
            'northquay-search',
            [[], ['suffix' => 'utm_campaign=isle_one'], [], []],
            $on,
            null,
            '',
        ];
        yield 'a value that is no campaign\'s' => [
            'stale-literal',
            'northquay-search',
            [[], ['suffix' => 'utm_campaign=summer'], [], []],
            $on,
            null,
            '',
        ];
        yield 'a name that changed since' => [
            'frozen-name',
            'hearthring',
            [[], [], [], ['suffix' => 'c=[campaign:name]']],
            $on,
            '[campaign:name] still sends “Isle Zero”; the campaign is called “Isle One” now.',
            'n1',
        ];
        yield 'a name that nothing sends' => [
            'frozen-name',
            'hearthring',
            [[], [], [], ['suffix' => 'c=[campaign:id]']],
            $on,
            null,
            '',
        ];
        yield 'names that do not freeze' => [
            'frozen-name',
            'reedrail',
            [['suffix' => 'c=(:campaign_title:)'], [], []],
            $on,
            null,
            '',
        ];
        yield 'a landing URL with a query, not mended' => [
            'second-question-mark',
            'pellworth-search',
            [['template' => '{LandingPage}?a=1'], [], [], ['landing' => 'https://v.example/?x=1']],
            $on,
            'The landing URL has a query already',
            'n0',
        ];
        yield 'a landing URL with a query, mended' => [
            'second-question-mark',
            'northquay-search',
            [['template' => '{landing}?a=1'], [], [], ['landing' => 'https://v.example/?x=1']],
            $on,
            null,
            '',
        ];
        yield 'a landing URL that is a tracker\'s link: its page has no query yet' => [
            'second-question-mark',
            'pellworth-search',
            [
                ['template' => '{LandingPage}?a=1'],
                [],
                [],
                ['landing' => 'https://h.example/r?x=1&to=https%3A%2F%2Fv.example%2F'],
            ],
            $on,
            null,
            '',
        ];
        yield 'a tracker\'s link whose page has a query' => [
            'second-question-mark',
            'pellworth-search',
            [
                ['template' => '{LandingPage}?a=1'],
                [],
                [],
                ['landing' => 'https://h.example/r?to=https%3A%2F%2Fv.example%2F%3Fx%3D1'],
            ],
            $on,
            'The landing URL has a query already',
            'n0',
        ];
        yield 'a tracker\'s link that goes on behind its page, and passes nothing on' => [
            'second-question-mark',
            'pellworth-search',
            [
                ['template' => '{LandingPage}?a=1'],
                [],
                [],
                ['landing' => 'https://h.example/r?to=https%3A%2F%2Fv.example%2F&x=1'],
            ],
            $on,
            null,
            'n0',
        ];
        yield 'a landing URL with a fragment' => [
            'behind-fragment',
            'northquay-search',
            [['template' => '{landing}?a=1'], [], [], ['landing' => 'https://v.example/#x']],
            $on,
            'never reaches the page',
            'n0',
        ];
        yield 'a fragment that the platform mends' => [
            'behind-fragment',
            'pellworth-search',
            [['template' => '{LandingPage}?a=1'], [], [], ['landing' => 'https://v.example/#x']],
            $on,
            null,
            '',
        ];
    }

    /** @param list<array<string, string>> $texts */
    #[DataProvider('paths')]
    public function test_finds_what_is_wrong_with_texts_taken_together(
        string $code,
        string $dialect,
        array $texts,
        Settings $settings,
        ?string $says,
        string $node,
    ): void {
        $dialect = self::dialect($dialect);
        $nodes = [];
        foreach ($texts as $i => $own) {
            $level = $dialect->levels[$i];
            $custom = array_filter(
                $own,
                static fn (string $k): bool => str_contains($k, '.'),
                ARRAY_FILTER_USE_KEY,
            );
            $isCampaign = $level->role->value === 'campaign';
            $nodes[] = new Node(
                $level->id,
                "n{$i}",
                $isCampaign ? 'Isle One' : "Node {$i}",
                $isCampaign ? $dialect->campaignTypes[0] : null,
                array_diff_key($own, $custom)
                    + ($level->role->value === 'ad' ? ['landing' => 'https://v.example/'] : []),
                array_combine(
                    array_map(static fn (string $k): string => substr($k, 3), array_keys($custom)),
                    array_values($custom),
                ),
                [],
                $isCampaign ? 'Isle Zero' : null,
            );
        }
        $other = new Node(
            $dialect->levelOf(Role::Campaign)->id ?? '',
            '77120',
            'Winter Ferry',
            $dialect->campaignTypes[0],
        );
        $campaigns = Campaigns::of(new Account($dialect, $settings, [], ['x' => $other] + $nodes, ['x' => null]));
        $found = self::only(
            $code,
            (new Inspector(self::rules(), new TemplateReader($dialect), self::plan()))->path(
                new Path($dialect, $nodes),
                $settings,
                [new Hop('h.example', 'to', false)],
                $campaigns,
            ),
        );

        self::assertCount($says === null ? 0 : 1, $found);
        if ($says !== null) {
            self::assertStringContainsString($says, $found[0]->reason);
            self::assertSame($node, $found[0]->node?->id);
        }
    }

    public function test_a_text_above_says_for_which_campaigns_a_token_gives_nothing(): void
    {
        foreach (['video' => 1, 'text' => 0] as $type => $count) {
            $path = new Path(self::dialect('northquay-search'), [
                new Node('account', 'A', 'A', null, ['suffix' => 't={term}']),
                new Node('campaign', '7', 'C', $type),
                new Node('ad', '1', 'Ad', null, ['landing' => 'https://v.example/']),
            ]);
            self::assertCount(
                $count,
                self::only(
                    'token-not-here',
                    (new Inspector(self::rules(), new TemplateReader($path->dialect)))->path(
                        $path,
                        new Settings(),
                    ),
                ),
            );
        }
    }

    /**
     * Columns: code, account suffix, account template, context, what the reason says (null: must not show).
     *
     * @return iterable<string, array{string, string, string, array<string, string>, string|null}>
     */
    public static function clicks(): iterable
    {
        $right = 'utm_source=nq&utm_medium=CPC-plan&utm_campaign=Isle%20One&adgroup={group.id}';
        yield 'all as it should be' => ['wrong-value', $right, '', [], null];
        yield 'another value' => [
            'wrong-value',
            str_replace('=nq', '=NQ', $right),
            '',
            [],
            'utm_source arrives as “NQ”; the plan says “nq”.',
        ];
        yield 'a key that is missing' => [
            'missing-key',
            str_replace('&adgroup={group.id}', '', $right),
            '',
            [],
            'adgroup does not arrive.',
        ];
        yield 'none missing' => ['missing-key', $right, '', [], null];
        yield 'a key twice' => [
            'duplicate-key',
            "{$right}&utm_source=x",
            '',
            [],
            'utm_source arrives 2 times: “nq” and “x”.',
        ];
        yield 'a list of values' => ['duplicate-key', "{$right}&a%5B%5D=1&a%5B%5D=2", '', [], null];
        yield 'an empty value' => [
            'empty-value',
            "{$right}&utm_term={term}",
            '',
            ['keyword.text' => ''],
            'utm_term arrives empty.',
        ];
        yield 'a full value' => ['empty-value', "{$right}&utm_term={term}", '', ['keyword.text' => 'x'], null];
        yield 'encoded once too often' => [
            'encoding-depth',
            str_replace('Isle%20One', 'Isle%2520One', $right),
            '',
            [],
            'utm_campaign arrives encoded: “Isle%20One” in place of “Isle One”.',
        ];
        yield 'encoded once too often, outside the plan' => [
            'encoding-depth',
            "{$right}&t={term.enc2}",
            '',
            ['keyword.text' => 'a b'],
            't arrives encoded: “a%20b”.',
        ];
        yield 'a keyword that has a percent sign itself' => [
            'encoding-depth',
            "{$right}&t={term}",
            '',
            ['keyword.text' => 'a%20b'],
            null,
        ];
        yield 'another page' => [
            'landing-distorted',
            $right,
            'https://h.example/r?to=https%3A%2F%2Fother.example%2F&x={landing.enc}',
            [],
            'another page',
        ];
        yield 'a hop that keeps the page' => [
            'landing-distorted',
            $right,
            'https://h.example/r?to={landing.enc}',
            [],
            null,
        ];
        yield 'a lost click ID' => [
            'click-id-lost',
            $right,
            'https://h.example/r?to={landing.raw}',
            [],
            'The click ID nqcid does not arrive',
        ];
        yield 'a click ID that arrives' => ['click-id-lost', $right, '', [], null];
        yield 'a placeholder nobody filled' => [
            'raw-token-arrived',
            "{$right}&x={nothing}",
            '',
            [],
            'x arrives with {nothing} in it',
        ];
        yield 'another platform\'s placeholder' => [
            'raw-token-arrived',
            "{$right}&x=%5Bpost:id%5D",
            '',
            [],
            'x arrives with [post:id] in it',
        ];
        yield 'a keyword in braces' => [
            'raw-token-arrived',
            "{$right}&x={term}",
            '',
            ['keyword.text' => '{nothing}'],
            null,
        ];
        yield 'a trail that ends in a hop' => [
            'broken-trail',
            $right,
            'https://h.example/r?where={landing.enc}',
            [],
            'does not reach the landing page',
        ];
        yield 'a trail that lands' => ['broken-trail', $right, '', [], null];
    }

    /** @param array<string, string> $context */
    #[DataProvider('clicks')]
    public function test_finds_what_is_wrong_with_a_click(
        string $code,
        string $suffix,
        string $template,
        array $context,
        ?string $says,
    ): void {
        $slots = array_filter(['suffix' => $suffix, 'template' => $template]);
        $path = new Path(self::dialect('northquay-search'), [
            new Node('account', 'A', 'A', null, $slots),
            new Node('campaign', '7', 'Isle One', 'text'),
            new Node('group', '70', 'G'),
            new Node('ad', '1', 'Ad', null, ['landing' => 'https://v.example/b?own=1']),
        ]);
        $context += ['click.id' => 'Q'];
        $route = Route::of($path, new Settings(), [new Hop('h.example', 'to', false)]);
        $found = self::only(
            $code,
            (new Inspector(self::rules(), new TemplateReader($path->dialect), self::plan()))->click(
                $path,
                $route->trace($context),
                $context,
                new Settings(),
                $route->page($context),
            ),
        );

        self::assertSame($says === null ? 0 : 1, count($found));
        if ($says !== null) {
            self::assertStringContainsString($says, $found[0]->reason);
        }
    }

    /**
     * Columns: code, members of the plan, what the reason says (null: must not show).
     *
     * @return iterable<string, array{string, array<string, mixed>, string|null}>
     */
    public static function plans(): iterable
    {
        $with = static fn (array $vocabulary, string $text = 'cpc'): array => [
            'parameters' => [
                ['key' => 'utm_medium', 'parts' => [['text' => $text]], 'vocabulary' => $vocabulary],
            ],
        ];
        yield 'a word not in the list' => [
            'not-in-vocabulary',
            $with(['cpc', 'email'], 'e-mail'),
            '“e-mail” is not among the words for utm_medium (cpc, email); email is meant',
        ];
        yield 'a word in the list' => ['not-in-vocabulary', $with(['cpc']), null];
        yield 'a retired word' => [
            'retired-value',
            $with([
                ['value' => 'cpc', 'retired' => true, 'use' => 'ppc'],
                ['value' => 'ppc', 'retired' => true, 'use' => 'paid-search'],
                'paid-search',
            ]),
            '“cpc” is retired for utm_medium; paid-search has taken its place.',
        ];
        yield 'a retired word with no successor' => [
            'retired-value',
            $with([['value' => 'cpc', 'retired' => true]]),
            '“cpc” is retired for utm_medium.',
        ];
        yield 'a word in use' => [
            'retired-value',
            $with(['cpc', ['value' => 'old', 'retired' => true, 'use' => 'cpc']]),
            null,
        ];
        yield 'capitals' => ['not-lowercase', $with([], 'CPC'), '“CPC” has capital letters'];
        yield 'capitals that were agreed' => ['not-lowercase', $with(['CPC'], 'CPC'), null];
        yield 'a space' => ['space-in-value', $with([], 'North Quay Ads'), '“North Quay Ads” has a space'];
        yield 'a space that was agreed' => ['space-in-value', $with(['North Quay'], 'North Quay'), null];
        yield 'an address' => ['personal-data', $with([], 'me@x.example'), 'looks like an e-mail address'];
        yield 'no address' => ['personal-data', $with([], 'cpc'), null];
        yield 'the wrong channel' => [
            'wrong-channel',
            [
                'channels' => ['social' => 'Paid social'],
                'parameters' => [
                    ['key' => 'utm_source', 'parts' => [['text' => 'hearthring']]],
                    ['key' => 'utm_medium', 'parts' => [['text' => 'social']]],
                ],
            ],
            'would be counted as Unpaid social',
        ];
        yield 'the right channel' => [
            'wrong-channel',
            [
                'channels' => ['social' => 'Paid social'],
                'parameters' => [
                    ['key' => 'utm_source', 'parts' => [['text' => 'hearthring']]],
                    ['key' => 'utm_medium', 'parts' => [['text' => 'paid-social']]],
                ],
            ],
            null,
        ];
        yield 'a number without its name' => [
            'id-without-name',
            ['parameters' => [['key' => 'utm_content', 'parts' => [['field' => 'ad.id']]]]],
            'utm_content carries ad.id and no key carries ad.name',
        ];
        yield 'a number with its name' => [
            'id-without-name',
            [
                'parameters' => [
                    [
                        'key' => 'utm_content',
                        'parts' => [['field' => 'ad.name'], ['text' => '-'], ['field' => 'ad.id']],
                    ],
                ],
            ],
            null,
        ];
    }

    /** A finding of a plan says in which cell it is, and what to say there in its place. */
    public function test_what_is_wrong_with_a_plan_is_at_its_cell_and_mended_there(): void
    {
        $plan = self::plan([
            'channels' => ['social' => 'Paid social'],
            'parameters' => [
                [
                    'key' => 'utm_source',
                    'parts' => [['text' => 'northquay']],
                    'platforms' => ['hearthring' => ['parts' => [['text' => 'Hearth Ring']]]],
                ],
                ['key' => 'utm_medium', 'parts' => [['text' => 'cpc']], 'fallback' => [[['text' => 'CPM']]]],
            ],
        ]);
        $found = [];
        foreach (self::rules()->plans as $rule) {
            foreach ($rule->check($plan) as $f) {
                $found[] = [$f->code, $f->cell?->key, $f->cell?->platform, $f->cell?->fallback, $f->fix?->text];
            }
        }

        self::assertSame(
            [
                ['not-lowercase', 'utm_source', 'hearthring', null, 'hearth_ring'],
                ['not-lowercase', 'utm_medium', null, 0, 'cpm'],
                ['space-in-value', 'utm_source', 'hearthring', null, 'hearth_ring'],
                ['wrong-channel', 'utm_medium', 'guildloft', null, 'paid-social'],
            ],
            $found,
        );
    }

    /** @param array<string, mixed> $members */
    #[DataProvider('plans')]
    public function test_finds_what_is_wrong_with_a_plan(string $code, array $members, ?string $says): void
    {
        $found = [];
        foreach (self::rules()->plans as $rule) {
            array_push($found, ...$rule->check(self::plan($members)));
        }
        $found = self::only($code, $found);

        self::assertCount($says === null ? 0 : 1, $found);
        self::assertStringContainsString((string) $says, $found[0]->reason ?? '');
    }

    public function test_every_code_of_the_list_is_found_by_some_example(): void
    {
        // the engine's reference, section 9
        $codes = 'unclosed-token unknown-token foreign-token token-case token-not-here no-landing-token
            landing-token-in-suffix leading-mark second-question-mark behind-fragment key-typo too-long
            unsafe-character not-lowercase space-in-value personal-data overridden ignored-slot
            custom-parameter-undefined auto-tag-conflict click-id-off stale-literal frozen-name insecure-landing
            empty-value duplicate-key missing-key wrong-value encoding-depth landing-distorted click-id-lost
            raw-token-arrived broken-trail not-in-vocabulary retired-value wrong-channel id-without-name';
        $examples = array_merge(
            ...array_map(static fn (iterable $cases): array => array_column(iterator_to_array($cases), 0), [
                self::texts(),
                self::paths(),
                self::clicks(),
                self::plans(),
            ]),
        );
        self::assertSame([], array_values(array_diff(preg_split('/\s+/', $codes) ?: [], $examples)));
    }

    /** A rule breaks proofs by saying so in the one list of rules. */
    public function test_a_rule_that_finds_what_breaks_the_agreement_says_so(): void
    {
        $breaking = array_map(static fn (ClickRule $r): string => $r::class, RuleBook::breaking());
        $rules = RuleBook::all(array_values(Shipped::all()), ChannelsReader::shipped())->clicks;
        $clicks = [[], [['k', 'x%2520']], [['k', ''], ['k', '2']], [['k', '{term}']], [['other', '1']]];
        foreach ([null, 'https://v.example/?own=1', 'https://v.example/other'] as $landed) {
            foreach ($clicks as $arrival) {
                $click = new Click(
                    Make::northquay(),
                    new Trace('https://v.example/', 'https://v.example/', null, [], $landed, $arrival, []),
                    [],
                    ['k' => 'x%20'],
                    ['m' => 'it can’t be given'],
                    ['k'],
                    ['k'],
                    'nqcid',
                    'https://v.example/?own=1',
                );
                foreach ($rules as $rule) {
                    foreach ($rule->check($click) as $flaw) {
                        self::assertSame($flaw->breaks, $flaw->breaks && $rule->breaks(), $rule::class);
                        self::assertSame($rule->breaks(), in_array($rule::class, $breaking, true));
                    }
                }
            }
        }
    }
}
