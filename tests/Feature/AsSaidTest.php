<?php

namespace Tests\Feature;

use App\Accounts\LiveTexts;
use App\Connectors\RemoteNode;
use App\Models\Node;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\SheetsIn;
use Tests\TestCase;

/** A sheet that says what it said before is not compared with what is known, but where that has become otherwise. */
final class AsSaidTest extends TestCase
{
    use SheetsIn;

    private const ADS = "Campaign ID,Campaign,Ad group ID,Ad group,Ad ID,Ad,Final URL,URL suffix,Status\n"
        ."71,Isles,702,Foot,7031,Deck A,https://velmar.example/a,utm_source=x,Active\n"
        ."71,Isles,702,Foot,7032,Deck B,https://velmar.example/b,,Active\n"
        ."72,Coves,703,Car,7033,Deck C,https://velmar.example/c,,Active\n";

    private const ALL = ['new' => 0, 'changed' => 0, 'same' => 7];

    /** @return array<string, int> what becomes of the elements of the sheet */
    private function again(string $sheet = self::ADS): array
    {
        $read = $this->read($this->dropped(['ads.csv' => $sheet]));
        $fates = array_intersect_key($read['counts'], self::ALL);
        $this->begun($read);

        return $fates;
    }

    private static function ad(): Node
    {
        return Node::query()->where('external_id', '7031')->firstOrFail();
    }

    private static function unsaid(): int
    {
        return Node::query()->whereNull('said')->where('depth', '>', 0)->count();
    }

    protected function setUp(): void
    {
        parent::setUp();
        $this->planned();
        $this->begun($this->read($this->dropped(['ads.csv' => self::ADS])));
    }

    public function test_the_same_again_is_known_without_a_look_at_any_text(): void
    {
        self::assertSame(0, self::unsaid());
        $looks = 0;
        DB::listen(static function ($query) use (&$looks): void {
            $looks += (int) preg_match('/^select .*from `texts`.*`node_id`, `kind`/s', $query->sql);
            $looks += (int) str_starts_with($query->sql, 'select `node_id`, `kind`, `name`, `text` from `texts`');
        });
        $read = $this->read($this->dropped(['ads.csv' => self::ADS]));

        self::assertSame(self::ALL, array_intersect_key($read['counts'], self::ALL));
        self::assertSame(0, $looks);
        $this->read($this->dropped(['ads.csv' => str_replace('Deck B', 'Deck D', self::ADS)]));
        self::assertGreaterThan(0, $looks, 'a look would have been seen');
    }

    /** @return iterable<string, array{\Closure(Node): mixed}> what becomes otherwise */
    public static function otherwise(): iterable
    {
        yield 'a text' => [static fn (Node $ad) => LiveTexts::set($ad->id, 'suffix', '', 'utm_source=y')];
        yield 'a text that is cleared' => [static fn (Node $ad) => LiveTexts::set($ad->id, 'landing', '', null)];
        yield 'its name' => [static fn (Node $ad) => LiveTexts::set($ad->id, 'name', '', 'Deck Z')];
        yield 'whether it runs' => [static fn (Node $ad) => $ad->update(['standing' => 'paused'])];
        yield 'that it is there' => [static fn (Node $ad) => $ad->update(['gone_at' => now()])];
        yield 'what it stands under' => [
            static fn (Node $ad) => $ad->update([
                'parent_id' => Node::query()->where('external_id', '703')->value('id'),
            ]),
        ];
    }

    public function test_what_was_written_while_a_sheet_was_taken_in_is_not_as_it_said(): void
    {
        $asked = CarbonImmutable::now()->subSecond();
        LiveTexts::set(self::ad()->id, 'suffix', '', 'utm_source=y');
        DB::table('nodes')->update(['said' => str_repeat('x', 16)]);
        $remote = new RemoteNode('7031', '702', 'ad', 'Deck A', null, 1, ['suffix' => 'utm_source=x'], [], []);
        LiveTexts::sync([self::ad()->id => $remote], $asked);

        self::assertSame('utm_source=y', self::texts('7031')['suffix'], 'what is newer stays');
        self::assertSame(1, self::unsaid());
    }

    /** @param \Closure(Node): mixed $become */
    #[DataProvider('otherwise')]
    public function test_what_has_become_otherwise_is_changed_back(\Closure $become): void
    {
        $before = self::ad()->only('name', 'standing', 'gone_at', 'parent_id');
        $texts = self::texts('7031');
        $become(self::ad());
        self::assertNull(DB::table('nodes')->where('external_id', '7031')->value('said'), 'it is not as it was said');

        self::assertSame(['changed' => 1, 'same' => 6], array_diff_key($this->again(), ['new' => 0]));
        self::assertSame($before, self::ad()->only('name', 'standing', 'gone_at', 'parent_id'));
        self::assertEquals($texts, self::texts('7031'));
        self::assertSame(self::ALL, $this->again());
        self::assertSame(0, self::unsaid());
        self::assertSame(self::ALL, $this->again());
    }

    public function test_what_was_known_before_a_sheet_said_so_is_noted_by_the_next(): void
    {
        DB::table('nodes')->update(['said' => null]);
        $imports = Node::query()->pluck('import_id')->unique()->all();
        self::assertSame(self::ALL, $this->again());

        self::assertSame(0, self::unsaid());
        self::assertNotSame($imports, Node::query()->pluck('import_id')->unique()->all());
        self::assertSame(0, DB::table('outside_changes')->count(), 'nothing has become otherwise');
    }

    public function test_what_a_sheet_says_otherwise_is_changed_and_what_it_says_less_is_not(): void
    {
        $other = str_replace(['Deck B', 'Coves'], ['Deck D', 'Caves'], self::ADS);
        self::assertSame(['new' => 0, 'changed' => 2, 'same' => 5], $this->again($other));
        self::assertSame(['new' => 0, 'changed' => 2, 'same' => 5], $this->again());
        $less = "Campaign ID,Ad group ID,Ad ID,Ad,Status\n71,702,7031,Deck A,Active\n";

        self::assertSame(['new' => 0, 'changed' => 0, 'same' => 3], $this->again($less));
        self::assertSame(['landing', 'suffix'], array_keys(self::texts('7031')));
        self::assertSame(self::ALL, $this->again());
    }
}
