<?php

namespace Tests\Feature;

use App\Accounts\Branches;
use App\Accounts\Trees;
use App\Changes\Division;
use App\Changes\Piece;
use App\Models\Account;
use App\Models\Node;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;
use Vestigon\Core\Account\Account as CoreAccount;

/** What a change is about, divided so that one process can hold each piece. */
final class DivisionTest extends TestCase
{
    private Account $account;

    protected function setUp(): void
    {
        parent::setUp();
        $this->account = $this->imported();
    }

    /** @return iterable<string, array{int}> */
    public static function sizes(): iterable
    {
        yield 'ad by ad' => [1];
        yield 'a few' => [7];
        yield 'many' => [60];
        yield 'all' => [100_000];
    }

    #[DataProvider('sizes')]
    public function test_every_ad_is_in_one_piece_and_no_piece_has_too_many(int $size): void
    {
        $division = Division::of($this->account, null, $size);
        $ads = [];
        foreach ($division->pieces() as $piece) {
            $its = $this->adsIn($piece);
            self::assertLessThanOrEqual(count($division->pieces()) === 1 ? PHP_INT_MAX : $size, count($its));
            array_push($ads, ...$its);
        }

        self::assertEqualsCanonicalizing($this->ads()->pluck('id')->all(), $ads);
        self::assertSame(range(1, count($division->pieces())), array_column($division->pieces(), 'number'));
        self::assertSame($size === 100_000, $division->above() === []);
    }

    #[DataProvider('sizes')]
    public function test_what_stands_above_several_pieces_is_told_wider_elements_first(int $size): void
    {
        $division = Division::of($this->account, null, $size);
        $depths = Node::query()->findMany($division->above())->pluck('depth', 'id');
        $told = array_map(static fn (int $id): int => $depths[$id], $division->above());
        foreach ($division->above() as $i => $element) {
            $keys = $this->whole()->keysTo((string) $element);
            $wider = array_map(intval(...), array_slice($keys, 0, -1));
            self::assertSame([], array_diff($wider, array_slice($division->above(), 0, $i)), 'each behind its own');
        }
        self::assertSame($told === [] ? [] : 0, $told[0] ?? []);
        foreach ($division->pieces() as $piece) {
            $above = $told === [] ? [] : array_merge(...array_map($this->above(...), $piece->tops));
            self::assertSame([], array_diff($above, $division->above()), 'nothing else stands above two pieces');
        }
    }

    public function test_of_some_elements_the_widest_count(): void
    {
        $campaign = Node::query()->where(['account_id' => $this->account->id, 'depth' => 1])->firstOrFail();
        $group = Node::query()->where('parent_id', $campaign->id)->firstOrFail();
        $other = $this->ads()->whereNotIn('parent_id', Branches::below($this->account, [$campaign->id]))->firstOrFail();

        $division = Division::of($this->account, [$other->id, $group->id, $campaign->id]);

        self::assertEqualsCanonicalizing([$campaign->id, $other->id], $division->pieces()[0]->tops);
        self::assertCount(1, $division->pieces());
    }

    public function test_what_the_platform_does_not_have_any_more_is_in_none(): void
    {
        $gone = $this->ads()->firstOrFail();
        $gone->delete();

        $ads = array_merge(...array_map($this->adsIn(...), Division::of($this->account, null, 10)->pieces()));

        self::assertNotContains($gone->id, $ads);
        self::assertCount($this->ads()->count(), $ads);
    }

    public function test_groups_are_those_in_which_ads_stand(): void
    {
        $root = Node::query()->where(['account_id' => $this->account->id, 'depth' => 0])->firstOrFail();
        $groups = Division::of($this->account, null)->groupsBelow($root->id);

        self::assertSame([], array_diff($this->ads()->distinct()->pluck('parent_id')->all(), $groups));
    }

    /** @return list<int> */
    private function adsIn(Piece $piece): array
    {
        $account = Trees::around($this->account, $piece->tops);

        return array_map(intval(...), array_keys(iterator_to_array($account->adNodes())));
    }

    /** @return list<int> */
    private function above(int $node): array
    {
        return array_map(intval(...), array_slice($this->whole()->keysTo((string) $node), 0, -1));
    }

    private function whole(): CoreAccount
    {
        return Trees::whole($this->account);
    }

    private function ads()
    {
        return Node::query()->where(['account_id' => $this->account->id, 'is_ad' => true]);
    }
}
