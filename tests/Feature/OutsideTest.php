<?php

namespace Tests\Feature;

use App\Jobs\ImportAccounts;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Connection;
use App\Models\Import;
use App\Models\ImportStatus;
use App\Models\Node;
use App\Models\OutsideChange;
use App\Models\OutsideState;
use App\Models\Text;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\Queue;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** What changes on a platform without us is found by the next import, judged, and accepted or put back. */
final class OutsideTest extends TestCase
{
    private Account $account;

    protected function setUp(): void
    {
        parent::setUp();
        $this->account = $this->imported();
        $this->planned();
    }

    private function again(): void
    {
        $import = Import::begin($this->account->link, null);
        self::assertSame(ImportStatus::Done, $import?->refresh()->status, (string) $import?->problem);
    }

    /** @param array<string, mixed> $what */
    private function edit(string $id, array $what): void
    {
        $this->standins('/edit', ['site' => 'northquay', 'id' => $id, ...$what]);
    }

    private function inLineNow(): void
    {
        $change = $this->inLine($this->account);
        foreach (['trial', 'rest'] as $stage) {
            $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        }
        self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
    }

    private function ad(): Node
    {
        return Node::query()
            ->where(['is_ad' => true, 'state' => 'proven'])
            ->orderBy('position')
            ->firstOrFail();
    }

    /** @return list<list<mixed>> */
    private function undecided(): array
    {
        return OutsideChange::query()
            ->with('node')
            ->undecided()
            ->orderBy('id')
            ->get()
            ->map(static fn (OutsideChange $o): array => [
                $o->node->external_id,
                $o->kind,
                $o->before,
                $o->after,
                $o->breaks,
                $o->mends,
            ])
            ->all();
    }

    /** @return array<string, array<string, string>> an ad's texts with another landing URL */
    private static function slots(Node $ad, string $landing): array
    {
        $live = Text::query()->where('node_id', $ad->id)->whereNull('until')->pluck('text', 'kind');

        return ['slots' => $live->only('template', 'suffix')->put('landing', $landing)->all()];
    }

    private function landing(Node $node): string
    {
        return Text::query()
            ->where(['node_id' => $node->id, 'kind' => 'landing'])
            ->whereNull('until')
            ->value('text');
    }

    public function test_the_first_import_and_what_we_write_ourselves_is_no_change_from_outside(): void
    {
        $this->inLineNow();
        $this->again();
        self::assertSame([], $this->undecided());
    }

    public function test_what_breaks_a_proof_is_told_apart_and_put_back(): void
    {
        $this->inLineNow();
        $ad = $this->ad();
        $was = $this->landing($ad);
        $broken = 'https://velmar.localhost/x?utm_source=elsewhere';
        $this->edit($ad->external_id, ['set' => ['standing' => 'paused', ...self::slots($ad, $broken)]]);
        $this->again();
        self::assertSame(
            [
                [$ad->external_id, 'landing', $was, $broken, 1, 0],
                [$ad->external_id, 'standing', 'live', 'paused', 0, 0],
            ],
            $this->undecided(),
            'that it is paused does not matter, the landing URL is what breaks it',
        );
        $count = ['open' => 2, 'breaking' => 1, 'breaks' => 1];
        $this->api('GET', '/accounts')->assertJsonPath('items.0.outside', $count);
        $this->api('GET', '/running')->assertJsonPath('outside', ['open' => 2, 'breaking' => 1]);

        $shown = $this->api('GET', '/outside')->assertOk();
        self::assertSame([true, false], array_column($shown->json('items'), 'canPutBack'));
        $paused = $shown->json('items.1.id');
        $at = "/accounts/{$this->account->id}/outside";
        $this->api('POST', "{$at}/return", ['items' => [$paused]])->assertStatus(409);
        $back = $this->api('POST', "{$at}/return")
            ->assertStatus(202)
            ->json('id');
        self::assertSame([[$was]], Change::query()->findOrFail($back)->writes->map(fn ($w) => [$w->after])->all());
        self::assertCount(1, $this->undecided(), 'that it is paused is still to be decided of');

        $this->api('POST', "/changes/{$back}/drop")->assertSuccessful();
        self::assertCount(2, $this->undecided(), 'what was not put back after all waits again');
        $back = $this->api('POST', "{$at}/return")->json('id');
        foreach (['trial', 'rest'] as $stage) {
            $this->api('POST', "/changes/{$back}/application");
        }
        self::assertSame([$was, 'proven'], [$this->landing($ad), $ad->refresh()->state]);
        $this->again();
        self::assertCount(1, $this->undecided(), 'what we put back is no change from outside');
    }

    public function test_what_is_a_new_agreement_is_taken_into_the_plan(): void
    {
        $this->inLineNow();
        $group = Node::query()->where('level', 'group')->where('proven', '>', 1)->orderBy('position')->firstOrFail();
        $suffix = 'utm_source=agency&utm_medium={term}';
        $this->edit($group->external_id, ['set' => ['slots' => ['suffix' => $suffix]]]);
        $this->again();
        $one = OutsideChange::query()->sole();
        self::assertSame([$group->id, $group->proven], [$one->node_id, $one->breaks]);

        $agreed = $this->api('GET', "/outside/{$one->id}/agreement")->assertOk();
        self::assertSame(
            [['key' => 'utm_source', 'expected' => 'northquay', 'arrived' => 'agency']],
            $agreed->json('keys'),
            'not the medium: a token gives that',
        );
        $effect = $agreed->json('effect');
        self::assertSame(0, $effect['mends'], 'their medium is still not what was agreed');
        self::assertGreaterThan(0, $effect['breaks'], 'and all others send the old source');

        $this->edit($group->external_id, ['set' => ['slots' => ['suffix' => 'utm_source=agency']]]);
        $this->again();
        $agreed = $this->api('GET', "/outside/{$one->id}/agreement");
        $saved = ['revision' => $agreed->json('revision'), 'document' => $agreed->json('document')];
        $this->api('PUT', '/plan', $saved)->assertOk();
        self::assertSame(
            $agreed->json('effect.proven'),
            Node::query()->where(['is_ad' => true, 'state' => 'proven'])->count(),
            'what was foretold came true',
        );
    }

    public function test_what_a_change_above_many_ads_does_is_counted_and_mended_again_by_itself(): void
    {
        $this->inLineNow();
        $proven = Node::query()->where(['is_ad' => true, 'state' => 'proven'])->count();
        $root = Node::query()->whereNull('parent_id')->firstOrFail();
        $switched = Text::query()->where(['node_id' => $root->id, 'kind' => 'setting'])->pluck('text', 'name');
        $settings = ['clickId' => false] + $switched->all();
        $this->edit($this->account->external_id, ['set' => ['settings' => $settings]]);
        $this->again();
        $found = $this->undecided();
        self::assertSame([$root->external_id, 'setting', $proven], [$found[0][0], $found[0][1], $found[0][4]]);
        self::assertCount(1, $found);

        $this->edit($this->account->external_id, ['set' => ['settings' => ['clickId' => true] + $settings]]);
        $this->again();
        self::assertSame([], $this->undecided(), 'it is again as it was');
        self::assertSame(OutsideState::Undone, OutsideChange::query()->sole()->state);
    }

    public function test_a_place_that_changes_twice_is_one_change_from_the_first_text_to_the_last(): void
    {
        $ad = $this->ad2();
        $was = $this->landing($ad);
        foreach (['https://velmar.localhost/1', 'https://velmar.localhost/2'] as $landing) {
            $this->edit($ad->external_id, ['set' => self::slots($ad, $landing)]);
            $this->again();
            $this->again(); // nothing new
        }
        $one = OutsideChange::query()->undecided()->sole();
        self::assertSame([$was, $landing], [$one->before, $one->after]);

        $at = "/accounts/{$this->account->id}/outside/acceptance";
        $this->api('POST', $at, ['items' => [$one->id]])->assertJsonPath('decided', 1);
        $this->api('POST', $at, ['items' => [$one->id]])->assertJsonPath('decided', 0);
        self::assertSame([], $this->undecided());
        $this->api('GET', '/outside?decided=1')->assertJsonPath('items.0.by', $this->editor->name);
        $this->api('DELETE', $at, ['items' => [$one->id]])->assertJsonPath('decided', 1);
        self::assertCount(1, $this->undecided());
    }

    public function test_of_what_is_gone_or_new_only_the_widest_is_told(): void
    {
        $group = Node::query()->where('level', 'group')->orderBy('position')->firstOrFail();
        $ads = Node::query()->where('parent_id', $group->id)->get();
        self::assertGreaterThan(0, $ads->count());
        foreach ([$group, ...$ads] as $node) {
            $this->edit($node->external_id, ['remove' => true]);
        }
        $this->again();
        self::assertSame([[$group->external_id, 'gone', null, null, 0, 0]], $this->undecided());
        $this->standins('/reset');
        $this->again();
        self::assertSame([], $this->undecided(), 'it is there again');
    }

    private function ad2(): Node
    {
        return Node::query()->where('is_ad', true)->orderBy('position')->firstOrFail();
    }

    /** @return array<string, array{int, int, string, string}> from, until, now, next; all 6 hours, in Helsinki */
    public static function quiet(): array
    {
        return [
            'not quiet' => [22, 6, '2026-11-26 06:00', '2026-11-26 12:00'],
            'over midnight, before it' => [22, 6, '2026-11-26 14:30', '2026-11-27 04:00'],
            'over midnight, after it' => [22, 6, '2026-11-26 20:00', '2026-11-27 04:00'],
            'its end is not quiet' => [22, 6, '2026-11-26 22:00', '2026-11-27 04:00'],
            'in the day' => [9, 17, '2026-11-26 02:00', '2026-11-26 15:00'],
            'summer time ends meanwhile' => [0, 12, '2026-10-24 20:00', '2026-10-25 10:00'],
        ];
    }

    #[DataProvider('quiet')]
    public function test_none_begins_by_itself_in_quiet_hours(int $from, int $until, string $now, string $next): void
    {
        $this->client->update(['time_zone' => 'Europe/Helsinki']);
        $connection = new Connection(['every_hours' => 6, 'quiet_from' => $from, 'quiet_until' => $until]);
        $connection->setRelation('client', $this->client);
        self::assertSame(
            $next,
            $connection->next(CarbonImmutable::parse($now, 'UTC'))?->format('Y-m-d H:i'),
        );
    }

    public function test_imports_begin_by_themselves_when_their_time_has_come(): void
    {
        $connection = $this->account->link;
        $at = "/connections/{$connection->id}/schedule";
        $this->api('PUT', $at, ['everyHours' => 2, 'quietFrom' => null, 'quietUntil' => null])->assertStatus(422);
        $this->api('PUT', $at, ['everyHours' => 1, 'quietFrom' => 5, 'quietUntil' => 5])->assertStatus(422);
        $this->api('PUT', $at, ['everyHours' => 1, 'quietFrom' => 5, 'quietUntil' => null])->assertStatus(422);
        $this->api('PUT', $at, ['everyHours' => 1, 'quietFrom' => null, 'quietUntil' => null])->assertOk();
        Queue::fake();
        $begun = function (): int {
            $this->artisan('imports:begin');

            return Queue::pushed(ImportAccounts::class)->count();
        };
        self::assertSame(0, $begun(), 'an hour has not passed');
        $this->travel(61)->minutes();
        self::assertSame([1, 1], [$begun(), $begun()], 'once');
        self::assertNull(Import::query()->latest('id')->first()?->user_id);
        $this->travel(61)->minutes();
        self::assertSame(1, $begun(), 'while one is under way none is begun beside it');
        $this->api('PUT', $at, ['everyHours' => null, 'quietFrom' => null, 'quietUntil' => null])
            ->assertJsonPath('nextAt', null);
    }

    public function test_what_comes_by_sheet_is_not_fetched(): void
    {
        $this->account->link->update(['reads_by' => 'sheet']);
        $wanted = ['everyHours' => 24, 'quietFrom' => null, 'quietUntil' => null];
        $this->api('PUT', "/connections/{$this->account->connection_id}/schedule", $wanted)->assertStatus(422);
    }
}
