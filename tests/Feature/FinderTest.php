<?php

namespace Tests\Feature;

use App\Accounts\Finder;
use App\Accounts\NameWords;
use App\Jobs\ImportAccounts;
use App\Models\Account;
use App\Models\ImportStatus;
use App\Models\Node;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\TestCase;

/** Elements are found by the beginnings of words, by how their number begins and by how it ends. */
final class FinderTest extends TestCase
{
    private Account $account;

    protected function setUp(): void
    {
        parent::setUp();
        $this->account = $this->imported();
    }

    private function element(string $name, string $number): Node
    {
        $node = Node::query()->create([
            'account_id' => $this->account->id,
            'parent_id' => $this->account->nodes()->whereNull('parent_id')->value('id'),
            'level' => 'campaign',
            'depth' => 1,
            'position' => 1_000,
            'external_id' => $number,
            'name' => $name,
            'version' => 1,
            'import_id' => 0,
            'is_ad' => false,
        ]);
        NameWords::add([$node]);

        return $node->refresh();
    }

    /** @return list<int> */
    private function found(string $words, int $most = 1000): array
    {
        return (new Finder($this->account->id, $most))->find($words, static fn (Builder $q): Builder => $q)[0];
    }

    public function test_all_words_begin_as_typed_in_any_order_and_case(): void
    {
        $node = $this->element('Café Crème – 3 for 2 from the Harbour', 'ZQ-77-00813');
        foreach (
            ['café', 'CAFE', 'crem caf', 'harb from the', '3 for 2', '2', 'cafe, creme!', 'c h', 'Café Crème'] as $typed
        ) {
            self::assertContains($node->id, $this->found($typed), $typed);
        }
        foreach (['afé', 'café tea', 'arbour', '4', 'cafés'] as $typed) {
            self::assertNotContains($node->id, $this->found($typed), $typed);
        }
    }

    public function test_a_number_is_found_by_its_beginning_and_by_its_end(): void
    {
        $node = $this->element('A', 'ZQ-77-00813');
        foreach (['ZQ-77', 'zq-7', 'ZQ-77-00813', '813', '00813', '7-00813'] as $typed) {
            self::assertSame([$node->id], $this->found($typed), $typed);
        }
        foreach (['13', '0081', '77', 'ZQ_77', '%', '_____813'] as $typed) {
            self::assertNotContains($node->id, $this->found($typed), $typed);
        }
    }

    public function test_of_more_than_are_wanted_some_come_and_it_is_said(): void
    {
        $same = array_map(fn (int $i): int => $this->element("Twelve lamps {$i}", "L{$i}")->id, range(1, 7));
        $finder = new Finder($this->account->id, 5);
        [$ids, $more] = $finder->find('twelve lam', static fn (Builder $q): Builder => $q);
        self::assertSame([5, true], [count($ids), $more]);
        self::assertSame([], array_diff($ids, $same));
        self::assertSame(
            [[$same[2]], false],
            $finder->find('twelve lam', static fn (Builder $q): Builder => $q->where('nodes.external_id', 'L3')),
        );
        $rows = $this->api('GET', "/accounts/{$this->account->id}/rows?q=twelve+lamps")->assertOk();
        self::assertSame([7, false], [$rows->json('total'), $rows->json('more')]);
    }

    public function test_what_is_renamed_is_found_by_its_new_name_alone(): void
    {
        $ad = Node::query()->where(['account_id' => $this->account->id, 'is_ad' => true])->firstOrFail();
        $name = $ad->name;
        NameWords::drop([$ad->id]);
        $ad->update(['name' => 'Zyzzyva before']);
        NameWords::add([$ad]);
        self::assertSame([$ad->id], $this->found('zyzzy'));

        $import = $this->client->imports()->create([
            'connection_id' => $this->account->connection_id,
            'status' => ImportStatus::Queued,
        ]);
        ImportAccounts::dispatchSync($import->id);

        self::assertSame($name, $ad->refresh()->name);
        self::assertSame([], $this->found('zyzzy'));
        self::assertContains($ad->id, $this->found($name));
    }

    /** Against reading every element: what is found at once, and what a choice of elements finds, is the same. */
    public function test_it_finds_what_reading_every_element_finds(): void
    {
        $nodes = Node::query()->where('account_id', $this->account->id)->get(['id', 'name', 'external_id']);
        $named = $nodes->mapWithKeys(static fn (Node $n): array => [$n->id => self::words($n->name)])->all();
        $random = new Randomizer(new Mt19937(7));
        $some = 0;
        for ($i = 0; $i < 120; $i++) {
            $node = $nodes[$random->getInt(0, $nodes->count() - 1)];
            $words = $random->shuffleArray(NameWords::in($node->name));
            $cut = static fn (string $w): string => mb_substr($w, 0, $random->getInt(1, mb_strlen($w)));
            $typed = match ($i % 4) {
                0 => implode(' ', array_map($cut, array_slice($words, 0, $random->getInt(1, 3)))),
                1 => substr($node->external_id, 0, $random->getInt(1, strlen($node->external_id))),
                2 => substr($node->external_id, -$random->getInt(1, strlen($node->external_id))),
                default => $cut($words[0]).' '.$random->getInt(0, 9),
            };
            $wanted = $nodes
                ->filter(static fn (Node $n): bool => self::fits($n, $named[$n->id], $typed))
                ->modelKeys();
            $query = Node::query()->where('nodes.account_id', $this->account->id);
            Finder::narrow($query, $this->account->id, $typed);

            self::assertEqualsCanonicalizing($wanted, $this->found($typed, 100_000), $typed);
            self::assertEqualsCanonicalizing($wanted, $query->pluck('nodes.id')->all(), $typed);
            $some += (int) ($wanted !== []);
        }
        self::assertGreaterThan(80, $some);
    }

    /** @param list<string> $words of its name */
    private static function fits(Node $node, array $words, string $typed): bool
    {
        $number = mb_strtolower($node->external_id);
        $low = mb_strtolower($typed);
        $terms = self::words($typed);
        $named = $terms !== [] && array_filter(
            $terms,
            static fn (string $t): bool => array_filter($words, static fn ($w): bool => str_starts_with($w, $t)) === [],
        ) === [];

        return $named || str_starts_with($number, $low) || (strlen($low) > 2 && str_ends_with($number, $low));
    }

    /** @return list<string> */
    private static function words(string $text): array
    {
        return preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($text), -1, PREG_SPLIT_NO_EMPTY) ?: [];
    }

    public function test_nobody_finds_what_is_another_accounts(): void
    {
        $this->element('Only here', 'OH1');
        $other = $this->imported('NQ-2041');
        self::assertSame(
            [[], false],
            (new Finder($other->id, 10))->find('only here', static fn (Builder $q): Builder => $q),
        );
        self::assertSame(
            0,
            DB::table('name_words as w')
                ->join('nodes', 'nodes.id', 'w.node_id')
                ->whereColumn('nodes.account_id', '<>', 'w.account_id')
                ->count(),
        );
    }
}
