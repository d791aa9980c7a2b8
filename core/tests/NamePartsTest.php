<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Account\Account;
use Vestigon\Core\Account\Node;
use Vestigon\Core\Command\CheckCommand;
use Vestigon\Core\Command\CompileCommand;
use Vestigon\Core\Command\TraceCommand;
use Vestigon\Core\Dialect\Dialect;
use Vestigon\Core\Dialect\Role;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Naming\Pattern;
use Vestigon\Core\Naming\PatternReader;
use Vestigon\Core\Naming\Patterns;
use Vestigon\Core\Plan\PlanReader;

/** Which pattern a name follows, what is meant by one that does not, and its parts as fields of the plan. */
final class NamePartsTest extends TestCase
{
    private const CAMPAIGNS = [
        'format' => 'vestigon.naming/1',
        'separator' => '_',
        'for' => ['levels' => ['campaign'], 'families' => ['search', 'social']],
        'parts' => [
            ['name' => 'market', 'words' => [['word' => 'uk', 'means' => 'the British isles'], 'fr']],
            ['name' => 'aim', 'words' => ['brand', 'early-sale'], 'default' => 'brand'],
            ['name' => 'season', 'optional' => true, 'matches' => '(summer|winter)-\d{2}'],
            ['name' => 'free'],
        ],
    ];

    private static function campaigns(): Pattern
    {
        return PatternReader::read(new Cursor(self::CAMPAIGNS));
    }

    /** @return iterable<string, array{string, string|null}> a name, and the one that is meant */
    public static function meant(): iterable
    {
        yield 'right already' => ['uk_brand_x', null];
        yield 'capitals' => ['UK_Brand_x', 'uk_brand_x'];
        yield 'another separator' => ['uk | brand | summer-27 | x', 'uk_brand_summer-27_x'];
        yield 'blanks beside the separator' => ['uk _ brand _ x', 'uk_brand_x'];
        yield 'a space in a word' => ['uk_early sale_x', 'uk_early-sale_x'];
        yield 'a slip' => ['uk_bramd_x', 'uk_brand_x'];
        yield 'a form in capitals' => ['uk_brand_SUMMER-27_x', 'uk_brand_summer-27_x'];
        yield 'a word that nobody knows' => ['de_brand_x', null];
        yield 'a part too few' => ['uk_brand', null];
        yield 'nothing' => ['', null];
    }

    #[DataProvider('meant')]
    public function test_the_name_that_is_meant(string $name, ?string $meant): void
    {
        self::assertSame($meant, self::campaigns()->proposed($name));
    }

    /** Whatever is proposed follows the pattern; a composed name in capitals and with bars is what it was. */
    public function test_random_names_come_back_from_what_people_make_of_them(): void
    {
        mt_srand(12);
        $pattern = self::campaigns();
        for ($i = 0; $i < 500; $i++) {
            $name = $pattern->compose([
                'market' => ['uk', 'fr'][mt_rand(0, 1)],
                'aim' => ['brand', 'early-sale', ''][mt_rand(0, 2)],
                'season' => ['', 'winter-26'][mt_rand(0, 1)],
                'free' => ['ferry', 'x1', 'ærø'][mt_rand(0, 2)],
            ]);
            self::assertIsString($name);
            self::assertNull($pattern->proposed($name));
            $made = str_replace('_', [' | ', ' - ', ' / '][mt_rand(0, 2)], ucwords($name, '_'));
            $proposed = $pattern->proposed($made);
            self::assertNotNull($proposed, $made);
            self::assertSame([], $pattern->read($proposed)->trouble);
            self::assertSame($name, mb_strtolower($proposed));
        }
    }

    public function test_the_first_pattern_that_is_for_an_element_counts(): void
    {
        $free = ['for' => ['types' => ['video']], 'parts' => [['name' => 'all']]] + self::CAMPAIGNS;
        $groups = ['for' => ['levels' => ['group'], 'platforms' => ['northquay-search']]] + self::CAMPAIGNS;
        $patterns = Patterns::read(new Cursor([$free, self::CAMPAIGNS, $groups]));
        $of = static fn (string $dialect, string $level, ?string $type): ?int => (static fn ($p): ?int => $p === null
            ? null
            : (int) array_search($p, $patterns->all, true))(
                $patterns->for(Shipped::all()[$dialect], $level, $type),
            );

        self::assertSame(0, $of('northquay-search', 'campaign', 'video'));
        self::assertSame(1, $of('northquay-search', 'campaign', 'text'));
        self::assertSame(2, $of('northquay-search', 'group', 'text'));
        self::assertNull($of('pellworth-search', 'group', 'text'));
        self::assertNull($of('mossfeed', 'campaign', 'content'), 'native is another family');
        self::assertSame(1, $of('hearthring', 'campaign', 'feed'), 'levels are told by their role too');
    }

    /** @return array<string, mixed> a request of one campaign with one ad */
    private static function request(string $name): array
    {
        return [
            'dialect' => 'northquay-search',
            'naming' => [self::CAMPAIGNS],
            'account' => [
                'format' => 'vestigon.account/1',
                'dialect' => 'northquay-search',
                'settings' => ['clickId' => true],
                'nodes' => [
                    ['id' => 'A', 'parent' => null, 'level' => 'account', 'name' => 'A'],
                    ['id' => '71', 'parent' => 'A', 'level' => 'campaign', 'name' => $name, 'type' => 'text'],
                    ['id' => '72', 'parent' => '71', 'level' => 'group', 'name' => 'G'],
                    [
                        'id' => '73',
                        'parent' => '72',
                        'level' => 'ad',
                        'name' => 'Ad',
                        'slots' => ['landing' => 'https://v.example/'],
                    ],
                ],
            ],
            'plan' => [
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'parameters' => [['key' => 'utm_id', 'parts' => [['field' => 'campaign.part.market']]]],
            ],
        ];
    }

    public function test_a_part_is_a_field_that_the_compiler_carries(): void
    {
        $compile = new CompileCommand(Shipped::all());
        $writes = $compile->answer(new Cursor(self::request('uk_brand_x')))->document['writes'];
        self::assertSame(
            ['uk', 'utm_id={my.campaign_part_market}'],
            array_column($writes, 'after'),
            'by a custom parameter: no platform has a token for it',
        );
        $off = $compile->answer(new Cursor(self::request('somewhere')))->document;
        self::assertNotContains('somewhere', array_column($off['writes'], 'after'), 'empty where a name does not fit');
    }

    public function test_a_traced_ad_is_held_against_how_names_are_made(): void
    {
        $request = [
            'dialect' => 'northquay-search',
            'naming' => [self::CAMPAIGNS],
            'path' => [
                ['level' => 'account', 'id' => '1', 'name' => 'A'],
                ['level' => 'campaign', 'id' => '2', 'name' => 'UK_Brand_x', 'type' => 'text'],
                ['level' => 'group', 'id' => '3', 'name' => 'G'],
                ['level' => 'ad', 'id' => '4', 'name' => 'Ad', 'slots' => ['landing' => 'https://v.example/']],
            ],
        ];
        $codes = static fn (array $of): array => array_column(
            (new TraceCommand(Shipped::all()))->answer(new Cursor($of))->document['findings'],
            'code',
        );
        self::assertContains('name-off-pattern', $codes($request));
        $request['path'][1]['name'] = 'uk_brand_x';
        self::assertNotContains('name-off-pattern', $codes($request));
    }

    public function test_a_name_off_its_pattern_is_found_with_the_one_that_is_meant(): void
    {
        $found = (new CheckCommand(Shipped::all()))->answer(new Cursor(self::request('UK_brand_x')))->document;
        $off = array_values(
            array_filter($found['findings'], static fn (array $f): bool => $f['code'] === 'name-off-pattern'),
        );

        self::assertSame(['warning', '71'], [$off[0]['severity'], $off[0]['node']]);
        self::assertSame(
            '“UK_brand_x” is off its pattern: “UK” is not one of uk, fr; “uk_brand_x” is meant, it seems.',
            $off[0]['reason'],
        );
    }

    /** @return iterable<string, array{Dialect|null}> null: other platforms that nobody has seen */
    public static function platforms(): iterable
    {
        foreach (Shipped::all() as $id => $dialect) {
            yield $id => [$dialect];
        }
        yield 'unseen' => [null];
    }

    /** The same judgement as of all other random accounts, with parts of names among the plan's fields. */
    #[DataProvider('platforms')]
    public function test_random_accounts_are_brought_in_line_by_parts_of_names(?Dialect $platform): void
    {
        mt_srand(20_261);
        $patterns = new Patterns([
            PatternReader::read(
                new Cursor([
                    'for' => ['levels' => ['campaign', 'ad']],
                    'parts' => [['name' => 'market'], ['name' => 'free', 'optional' => true]],
                ] + self::CAMPAIGNS),
            ),
        ]);
        for ($i = 0; $i < Cases::of(12, $platform); $i++) {
            $dialect = $platform ?? RandomDialects::dialect();
            $account = $patterns->in(self::renamed(RandomAccounts::account($dialect, RandomAccounts::plan($dialect))));
            $plan = PlanReader::read(
                new Cursor([
                    'format' => 'vestigon.plan/1',
                    'id' => 'p',
                    'title' => 'P',
                    'clickId' => 'optional',
                    'parameters' => [
                        [
                            'key' => 'utm_campaign',
                            'parts' => [
                                ['field' => 'campaign.part.market'],
                                ['text' => '-'],
                                ['field' => 'campaign.id'],
                            ],
                            'shape' => mt_rand(0, 1) === 1 ? 'slug' : 'as-is',
                            'required' => true,
                        ],
                        ['key' => 'utm_content', 'parts' => [['field' => 'ad.part.market']]],
                    ],
                ]),
            );
            $trial = new CompilationTrial($account, $plan);
            self::assertSame([], $trial->faults(searches: true), implode("\n", $trial->shown()));
        }
    }

    private static function renamed(Account $account): Account
    {
        $nodes = [];
        foreach ($account->nodes as $key => $node) {
            $isNamed = in_array(
                $account->dialect->level($node->level)?->role,
                [Role::Campaign, Role::Ad],
                true,
            );
            $name = ['uk_ferry', 'Fr', 'a & b_x', 'no_such_name_at_all', $node->name][mt_rand(0, 4)];
            $nodes[$key] = ! $isNamed
                ? $node
                : new Node(
                    $node->level,
                    $node->id,
                    $name,
                    $node->type,
                    $node->slots,
                    $node->custom,
                    $node->attributes,
                    $node->publishedName,
                );
        }

        return $account->with($nodes);
    }
}
