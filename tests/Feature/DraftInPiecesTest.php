<?php

namespace Tests\Feature;

use App\Accounts\Branches;
use App\Changes\DraftedWrites;
use App\Changes\Drafting;
use App\Changes\DraftTurn;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\ChangeWrite;
use App\Models\Node;
use App\Support\Overtaken;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;
use Vestigon\Core\Compile\Write;
use Vestigon\Core\Dialect\SlotKind;

/** A change that several processes work out piece by piece is the change that one works out in one piece. */
final class DraftInPiecesTest extends TestCase
{
    private Account $account;

    protected function setUp(): void
    {
        parent::setUp();
        $this->account = $this->imported();
        $this->planned();
    }

    /** @return iterable<string, array{int}> ads of a piece */
    public static function sizes(): iterable
    {
        yield 'several campaigns' => [40];
        yield 'less than a campaign' => [8];
        yield 'less than a group' => [1];
    }

    #[DataProvider('sizes')]
    public function test_it_is_the_change_of_one_piece(int $size): void
    {
        $change = $this->inLine($this->account);
        $one = self::told($change);
        self::assertGreaterThan(5, count($one['writes']));
        self::assertNotNull($one['story']['trial']);
        $through = 0;
        Change::updated(static function (Change $c) use (&$through): void {
            if ($c->getOriginal('step') === 'working out every piece of the account') {
                $through = max($through, (int) $c->getOriginal('through'));
            }
        });

        self::assertTrue($this->again($change, $size));
        self::assertSame($this->ads(), $through, 'it was told how far it is');

        self::assertEquals($one, self::told($change));
        $ranks = $change->writes()->where('stage', 'rest')->get()->map(
            static fn ($w): int => ['custom' => 0, 'suffix' => 1, 'template' => 1, 'landing' => 2][$w->kind],
        );
        self::assertSame($ranks->sort()->values()->all(), $ranks->all(), 'the least risky first');
    }

    public function test_so_is_one_about_some_campaigns(): void
    {
        $campaigns = Node::query()->where(['account_id' => $this->account->id, 'depth' => 1])->orderBy('id');
        $change = Change::query()->findOrFail(
            $this->api('POST', '/changes', [
                'account' => $this->account->id,
                'title' => 'Some of it',
                'existing' => 'replace',
                'carrier' => 'fewest',
                'over' => ['nodes' => $campaigns->limit(5)->pluck('id')->all()],
            ])
                ->assertStatus(202)
                ->json('id'),
        );
        $one = self::told($change);
        self::assertGreaterThan(5, count($one['writes']));
        self::assertLessThan($this->ads(), $one['story']['ads']);

        self::assertTrue($this->again($change, 10));

        self::assertEquals($one, self::told($change));
    }

    public function test_where_all_that_it_is_about_has_gone_there_is_nothing_to_write(): void
    {
        $campaign = Node::query()->where(['account_id' => $this->account->id, 'depth' => 1])->firstOrFail();
        $change = Change::query()->findOrFail(
            $this->api('POST', '/changes', [
                'account' => $this->account->id,
                'title' => 'One campaign',
                'existing' => 'replace',
                'carrier' => 'fewest',
                'over' => ['nodes' => [$campaign->id]],
            ])
                ->assertStatus(202)
                ->json('id'),
        );
        self::assertGreaterThan(0, $change->writes()->count());
        $below = Branches::below($this->account, [$campaign->id]);
        Node::query()->whereIn('id', $below)->orWhereIn('parent_id', $below)->delete();

        $this->api('POST', "/changes/{$change->id}/again")->assertStatus(202);

        self::assertSame(
            [ChangeStatus::Ready, 0, 0],
            [$change->refresh()->status, $change->writes()->count(), $change->story['ads']],
            (string) $change->problem,
        );
    }

    public function test_so_is_one_by_hand(): void
    {
        $top = Node::query()->where(['account_id' => $this->account->id, 'depth' => 0])->firstOrFail();
        $ads = Node::query()->where(['account_id' => $this->account->id, 'is_ad' => true])->orderBy('id');
        $suffix = static fn (Node $node): array => [
            'node' => $node->id,
            'slot' => 'suffix',
            'text' => "utm_source=northquay&utm_medium=cpc&utm_content={$node->id}",
        ];
        $change = Change::query()->findOrFail(
            $this->api('POST', '/changes', [
                'account' => $this->account->id,
                'title' => 'By hand',
                'texts' => array_map($suffix, [$top, $ads->clone()->firstOrFail(), $ads->get()->last()]),
            ])->json('id'),
        );
        $one = self::told($change);

        self::assertTrue($this->again($change, 10));

        self::assertEquals($one, self::told($change));
    }

    public function test_begun_anew_after_a_worker_has_died_what_the_first_left_running_keeps_nothing(): void
    {
        $change = $this->inLine($this->account);
        $change->update(['status' => ChangeStatus::Drafting]);
        $first = DraftTurn::begin($change);
        $this->travel(1)->seconds();
        $second = DraftTurn::begin($change->refresh());
        $node = (string) Node::query()->where(['account_id' => $this->account->id, 'depth' => 0])->value('id');
        $write = Write::slot($node, SlotKind::Suffix, null, 'utm_source=northquay');
        (new DraftedWrites($change, $second))->add(1, [$write]);
        try {
            (new DraftedWrites($change, $first))->add(1, [$write]);
            self::fail('it was kept');
        } catch (Overtaken) {
            self::assertSame(1, (new DraftedWrites($change, $second))->count());
        }
        $this->expectException(Overtaken::class);
        $first->further(10);
    }

    public function test_dropped_meanwhile_it_ends_and_what_it_had_before_stays(): void
    {
        $change = $this->inLine($this->account);
        $had = $change->writes()->pluck('after')->all();
        Change::updated(static function (Change $c): void {
            if ($c->step === 'working out every piece of the account') {
                Change::query()
                    ->whereKey($c->id)
                    ->update(['status' => ChangeStatus::Dropped]);
            }
        });

        self::assertFalse($this->again($change, 10));

        self::assertSame(ChangeStatus::Dropped, $change->status);
        self::assertSame($had, DraftedWrites::before($change)->orderBy('position')->pluck('after')->all());
    }

    public function test_where_a_process_fails_it_is_told_and_what_it_had_before_stays(): void
    {
        $change = $this->inLine($this->account);
        $had = $change->writes()->pluck('after')->all();
        [$was, $nowhere] = [(string) getenv('DB_DATABASE'), 'vestigon_nowhere'];
        putenv("DB_DATABASE={$nowhere}");
        $_ENV['DB_DATABASE'] = $_SERVER['DB_DATABASE'] = $nowhere;
        try {
            $this->again($change, 10);
            self::fail('it went well without a database');
        } catch (\RuntimeException $e) {
            self::assertStringContainsString($nowhere, $e->getMessage());
        } finally {
            putenv("DB_DATABASE={$was}");
            $_ENV['DB_DATABASE'] = $_SERVER['DB_DATABASE'] = $was;
        }
        self::assertSame($had, DraftedWrites::before($change)->orderBy('position')->pluck('after')->all());
    }

    private function ads(): int
    {
        return Node::query()->where(['account_id' => $this->account->id, 'is_ad' => true])->count();
    }

    private function again(Change $change, int $size): bool
    {
        $change->update(['status' => ChangeStatus::Drafting, 'draft' => $change->draft + 1, 'story' => null]);
        $drafting = new Drafting($change->refresh(), $size);
        $done = $drafting->run();
        self::assertTrue(! $done || $drafting->memory > 0, 'several processes were at it');
        $change->refresh();

        return $done;
    }

    /** @return array{status: ChangeStatus, writes: list<array<string, mixed>>, story: array<string, mixed>} */
    private static function told(Change $change): array
    {
        $story = $change->story;
        unset($story['advice']);

        return [
            'status' => $change->status,
            'writes' => $change
                ->writes()
                ->get(['stage', 'node_id', 'kind', 'name', 'before', 'after'])
                ->map(static fn (ChangeWrite $w): string => (string) json_encode($w->toArray()))
                ->sort()
                ->values()
                ->all(),
            'story' => $story,
        ];
    }
}
