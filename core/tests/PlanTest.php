<?php

declare(strict_types=1);

namespace Vestigon\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Vestigon\Core\Dialect\Shipped;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Plan\KeySets;
use Vestigon\Core\Plan\Lane;
use Vestigon\Core\Plan\Parameter;
use Vestigon\Core\Plan\Plan;
use Vestigon\Core\Plan\PlanReader;
use Vestigon\Core\Plan\Slug;
use Vestigon\Core\Plan\Truth;

final class PlanTest extends TestCase
{
    /** @return iterable<array{string, string}> */
    public static function names(): iterable
    {
        yield ['Island Hopper & Co', 'island_hopper_co'];
        yield ['  –Summer– 2027! ', 'summer_2027'];
        yield ['Äußere Inseln', 'äußere_inseln'];
        yield ['v1.2-beta_x', 'v1.2-beta_x'];
        yield ['ⅣＦＥＲＲＹ①', 'ivferry1']; // NFKC: UAX #15, figure 6: compatibility forms become plain ones
        yield ["e\u{301}tude", 'étude'];
        yield ['日本 フェリー', '日本_フェリー'];
        yield ['¡!', ''];
    }

    #[DataProvider('names')]
    public function test_slugs(string $name, string $slug): void
    {
        self::assertSame($slug, Slug::of($name));
        self::assertSame($slug, Slug::of($slug), 'a slug stays');
    }

    /** @param array<string, mixed> $parameter */
    private static function plan(array $parameter): Plan
    {
        return PlanReader::read(
            new Cursor([
                'format' => 'vestigon.plan/1',
                'id' => 'p',
                'title' => 'P',
                'clickId' => 'optional',
                'parameters' => [['key' => 'k', 'parts' => [['text' => 'a']], ...$parameter]],
            ]),
        );
    }

    /**
     * @param array<string, mixed> $parameter
     * @param array<string, string> $fields
     */
    private static function value(
        array $parameter,
        array $fields,
        string $dialect = 'northquay-search',
        string $type = 'text',
        bool $shaped = false,
    ): ?string {
        $truth = Truth::of(
            self::plan($parameter),
            Shipped::dialect($dialect) ?? self::fail(),
            new Lane($type),
            static fn (): bool => $shaped,
        );

        return $truth->values($fields)['k'] ?? null;
    }

    public function test_the_truth_of_a_key(): void
    {
        $mixed = ['parts' => [['text' => 'NQ '], ['field' => 'campaign.name']], 'shape' => 'slug'];
        self::assertSame(
            'NQ isle_one',
            self::value($mixed, ['campaign.name' => 'Isle One']),
            'the shape works on the field, not on the text',
        );
        self::assertSame(
            'e',
            self::value(['parts' => [['field' => 'keyword.match']]], ['keyword.match' => 'exact']),
            'in the spelling of the platform',
        );
        self::assertSame(
            '',
            self::value(['parts' => [['field' => 'keyword.match']]], ['keyword.match' => 'other']),
        );
        self::assertSame(
            'ex',
            self::value(
                ['parts' => [['field' => 'keyword.match']]],
                ['keyword.match' => 'exact'],
                'pellworth-search',
            ),
        );
    }

    public function test_what_can_not_be_given_falls_back_or_is_unmet(): void
    {
        $term = ['parts' => [['field' => 'keyword.text']]];
        self::assertNull(self::value($term, ['keyword.text' => 'x'], type: 'listing'));
        self::assertSame(
            'sku',
            self::value(
                $term + ['fallback' => [[['field' => 'product.id']], [['text' => 'none']]]],
                ['product.id' => 'sku'],
                type: 'listing',
            ),
        );
        self::assertSame(
            'none',
            self::value(
                $term + ['fallback' => [[['field' => 'product.id']], [['text' => 'none']]]],
                [],
                type: 'video',
            ),
        );
        self::assertNull(
            self::value($term + ['shape' => 'slug'], ['keyword.text' => 'x']),
            'free text of a click can not be reshaped',
        );
        self::assertNull(self::value(['families' => ['social']], []));
        self::assertNull(self::value(['platforms' => ['northquay-search' => ['omit' => true]]], []));
        self::assertSame(
            'b',
            self::value(['platforms' => ['northquay-search' => ['parts' => [['text' => 'b']]]]], []),
        );
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function broken(): iterable
    {
        yield 'a field that is none' => [
            ['parts' => [['field' => 'campaign.']]],
            'parameters[0].parts[0].field: there is no field "campaign."',
        ];
        yield 'text and field at once' => [
            ['parts' => [['text' => 'a', 'field' => 'ad.id']]],
            'parameters[0].parts[0]: either "text" or "field" is wanted',
        ];
        yield 'no part' => [['parts' => []], 'parameters[0].parts: at least one part is wanted'];
        yield 'a key with a space' => [
            ['key' => 'utm source'],
            'parameters[0].key: a key of letters, digits, ".", "_", "~" and "-" is wanted',
        ];
        yield 'a word that is no word' => [
            ['vocabulary' => ['b', 7]],
            'parameters[0].vocabulary[1]: an object is wanted, a number given',
        ];
        yield 'an unknown shape' => [
            ['shape' => 'snake'],
            'parameters[0].shape: "snake" is not one of as-is, slug',
        ];
        yield 'a list where an object belongs' => [
            ['platforms' => ['x']],
            'parameters[0].platforms: an object is wanted, a list given',
        ];
    }

    /** @param array<string, mixed> $parameter */
    #[DataProvider('broken')]
    public function test_says_what_is_wrong_and_where(array $parameter, string $message): void
    {
        $this->expectExceptionObject(new UnusableInput($message));
        self::plan($parameter);
    }

    public function test_shipped_key_sets_are_read_and_what_is_wrong_in_one_is_named(): void
    {
        $sets = KeySets::read(new Cursor(KeySets::shippedDocument()));
        self::assertCount(4, $sets);
        self::assertSame(
            ['utm_source', 'utm_medium', 'utm_campaign', 'utm_term', 'utm_content'],
            array_map(static fn (Parameter $p): string => $p->key, $sets['The five UTM keys']),
        );
        $this->expectExceptionMessage('sets[0].parameters[1].key: "a" is there twice');
        $a = ['key' => 'a', 'parts' => [['text' => 'x']]];
        KeySets::read(
            new Cursor([
                'format' => KeySets::FORMAT,
                'sets' => [['title' => 'T', 'about' => '', 'parameters' => [$a, $a]]],
            ]),
        );
    }
}
