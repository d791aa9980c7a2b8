<?php

namespace Tests\Feature;

use App\Jobs\ProveAccount;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Role;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Tests\TestCase;

/** The list of changes: in pages, by state and person, without what was dropped; and accounts while they are proven. */
final class ChangeListTest extends TestCase
{
    /** @return list<int> */
    private function listed(string $query = ''): array
    {
        return array_column($this->api('GET', "/changes{$query}")->assertOk()->json('items'), 'id');
    }

    public function test_it_folds_what_was_dropped_and_chooses_by_state_and_person(): void
    {
        $account = $this->imported();
        $other = $this->member(Role::Owner, $this->client);
        $of = static fn (ChangeStatus $status, int $person): int => Change::factory()
            ->of($account)
            ->create(['status' => $status, 'user_id' => $person])
            ->id;
        $done = $of(ChangeStatus::Done, $this->editor->id);
        $dropped = $of(ChangeStatus::Dropped, $other->id);
        $ready = $of(ChangeStatus::Ready, $other->id);
        $stopped = $of(ChangeStatus::Stopped, $this->editor->id);

        self::assertSame([$stopped, $ready, $done], $this->listed());
        self::assertSame([$stopped, $ready], $this->listed('?state=open'), 'what was stopped can go on');
        self::assertSame([$done], $this->listed('?state=over'));
        self::assertSame([$dropped], $this->listed('?state=dropped'));
        self::assertSame([$ready], $this->listed("?by={$other->id}"));
        self::assertSame([$ready, $done], $this->listed("?before={$stopped}"));
        $list = $this->api('GET', '/changes');
        self::assertSame([1, null], [$list->json('dropped'), $list->json('next')]);
        self::assertEqualsCanonicalizing([$this->editor->id, $other->id], array_column($list->json('people'), 'id'));
        $this->api('GET', '/changes?state=none')->assertStatus(422);
    }

    public function test_pages_follow_one_another_and_miss_none(): void
    {
        $account = $this->imported();
        $ids = Change::factory()->of($account)->count(103)->create(['user_id' => $this->editor->id])->modelKeys();
        $seen = [];
        $next = null;
        $pages = 0;
        do {
            $page = $this->api('GET', '/changes'.($next === null ? '' : "?before={$next}"))->assertOk();
            array_push($seen, ...array_column($page->json('items'), 'id'));
            $next = $page->json('next');
            $pages++;
        } while ($next !== null);
        self::assertSame([3, array_reverse($ids)], [$pages, $seen]);
    }

    /** A story tells how many it has; before there is one they are counted, and no story is loaded for that. */
    public function test_writes_are_told_by_the_story_or_counted(): void
    {
        $account = $this->imported();
        $this->planned();
        $told = $this->inLine($account);
        $untold = Change::factory()->of($account)->create(['user_id' => $this->editor->id]);
        $write = $told->writes()->firstOrFail()->replicate(['id'])->fill(['change_id' => $untold->id]);
        $write->save();
        DB::enableQueryLog();
        $items = $this->api('GET', '/changes')->assertOk()->json('items');
        self::assertSame(
            [1, $told->refresh()->story['writes'] ?? null],
            array_column($items, 'writes'),
        );
        self::assertLessThan(10, count(DB::getQueryLog()));
    }

    public function test_an_account_says_while_it_is_proven_against_the_newest_plan(): void
    {
        $account = $this->imported();
        $proving = fn (): bool => $this->api('GET', '/accounts')->assertOk()->json('items.0.proving');
        self::assertFalse($proving(), 'there is no plan');
        Queue::fake();
        $this->api('PUT', '/plan', ['revision' => 0, 'document' => self::PLAN])->assertOk();
        self::assertTrue($proving());
        $this->app->call([new ProveAccount($account->id), 'handle']);
        self::assertFalse($proving());
    }
}
