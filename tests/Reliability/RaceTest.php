<?php

namespace Tests\Reliability;

use App\Accounts\LiveTexts;
use App\Accounts\Proof;
use App\Changes\Lease;
use App\Jobs\ApplyChange;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Import;
use App\Models\ImportStatus;
use App\Models\Node;
use App\Models\Role;
use App\Models\Text;
use App\Models\User;
use Illuminate\Database\ConnectionInterface;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Process\Process;
use Tests\TestCase;

/**
 * Two at once, forced: one holds the row that the other is about to decide by, and lets go of it only when the other
 * waits for it and the ground under its decision has moved.
 */
final class RaceTest extends TestCase
{
    /**
     * @param array<string, mixed> $body
     * @param \Closure(ConnectionInterface): void $meanwhile what happens while the request waits
     * @return array{status: int, answer: array<string, mixed>|null}
     */
    private function race(
        string $table,
        int $id,
        User $user,
        string $method,
        string $path,
        array $body,
        \Closure $meanwhile,
    ): array {
        $other = DB::connection('owner');
        $other->beginTransaction();
        $other->table($table)->where('id', $id)->lockForUpdate()->get('id');
        $request = new Process(
            [
                'php',
                __DIR__.'/race.php',
                (string) $user->id,
                $method,
                "/api/v1/clients/{$this->client->id}{$path}",
                json_encode((object) $body, JSON_THROW_ON_ERROR),
            ],
            base_path(),
            [
                'APP_ENV' => 'testing',
                'QUEUE_CONNECTION' => 'database',
                'CACHE_STORE' => 'array',
                'SESSION_DRIVER' => 'array',
            ],
        );
        $request->setTimeout(60)->start();
        $waits = static fn (): bool => DB::scalar(
            'select count(*) from information_schema.processlist where id <> connection_id() and time_ms > 30 and '
                ."(info like '%for update%' or info like '%lock in share mode%')",
        ) > 0;
        try {
            for ($i = 0; $i < 200 && $request->isRunning() && ! $waits(); $i++) {
                usleep(25_000);
            }
            self::assertTrue(
                $waits(),
                'the request waits for the row: '.$request->getOutput().$request->getErrorOutput(),
            );
            $meanwhile($other);
        } finally {
            $other->commit();
        }
        $request->wait();
        $answer = json_decode($request->getOutput(), true);
        self::assertIsArray($answer, $request->getOutput().$request->getErrorOutput());

        return $answer;
    }

    private function drafted(): Change
    {
        $account = Account::query()->first() ?? $this->imported();
        $this->client->plans()->exists() || $this->planned();

        return $this->inLine($account);
    }

    public function test_approving_a_draft_that_is_just_worked_out_anew(): void
    {
        $this->client->update(['needs_approval' => true]);
        $change = $this->drafted();
        $reviewer = $this->member(Role::Reviewer, $this->client);
        foreach (array_column($change->story['samples'] ?? [], 'node') as $node) {
            $this->api(
                'POST',
                "/changes/{$change->id}/looks",
                ['node' => $node, 'draft' => 1],
                $reviewer,
            )->assertStatus(204);
        }
        $answer = $this->race(
            'changes',
            $change->id,
            $reviewer,
            'POST',
            "/changes/{$change->id}/approval",
            ['draft' => 1],
            static fn (ConnectionInterface $db) => $db
                ->table('changes')
                ->where('id', $change->id)
                ->update(['draft' => 2]),
        );

        self::assertSame(
            [409, null],
            [$answer['status'], $change->refresh()->approved_by],
            json_encode($answer) ?: '',
        );
        $this->api('POST', "/changes/{$change->id}/approval", ['draft' => 2], $reviewer)
            ->assertStatus(422)
            ->assertJsonPath(
                'message',
                fn (string $m): bool => str_starts_with($m, 'Open the samples first: 0 of'),
            );
    }

    public function test_starting_a_change_while_another_of_the_same_elements_starts(): void
    {
        [$one, $other] = [$this->drafted(), $this->drafted()];
        $answer = $this->race(
            'accounts',
            $one->account_id,
            $this->editor,
            'POST',
            "/changes/{$one->id}/application",
            [],
            static fn (ConnectionInterface $db) => $db
                ->table('changes')
                ->where('id', $other->id)
                ->update(['status' => 'trying']),
        );

        self::assertSame([409, ChangeStatus::Ready], [$answer['status'], $one->refresh()->status]);
        self::assertStringContainsString(
            'is under way on the same elements',
            (string) ($answer['answer']['message'] ?? ''),
        );
    }

    public function test_starting_a_change_while_the_client_begins_to_want_approval(): void
    {
        $change = $this->drafted();
        $answer = $this->race(
            'clients',
            $this->client->id,
            $this->editor,
            'POST',
            "/changes/{$change->id}/application",
            [],
            fn (ConnectionInterface $db) => $db
                ->table('clients')
                ->where('id', $this->client->id)
                ->update(['needs_approval' => true]),
        );

        self::assertSame([409, ChangeStatus::Ready], [$answer['status'], $change->refresh()->status]);
    }

    public function test_two_saves_of_a_platform_at_one_revision(): void
    {
        $document = ['id' => 'ninth', 'title' => 'Theirs'];
        $text = str_replace(
            'id: reedrail',
            'id: ninth',
            (string) $this->api('GET', '/platforms/reedrail/file?as=yaml')->getContent(),
        );
        $answer = $this->race(
            'clients',
            $this->client->id,
            $this->editor,
            'PUT',
            '/platforms',
            ['text' => $text, 'revision' => 0],
            fn (ConnectionInterface $db) => $db->table('own_dialects')->insert([
                'client_id' => $this->client->id,
                'name' => 'ninth',
                'revision' => 1,
                'document' => json_encode($document),
            ]),
        );

        self::assertSame(409, $answer['status'], json_encode($answer) ?: '');
        self::assertSame(
            [['ninth', 1, $document]],
            $this->client
                ->ownDialects()
                ->get()
                ->map(static fn ($d): array => [$d->name, $d->revision, $d->document])
                ->all(),
        );
    }

    public function test_two_imports_of_a_connection(): void
    {
        $account = $this->imported();
        $answer = $this->race(
            'connections',
            $account->connection_id,
            $this->editor,
            'POST',
            "/connections/{$account->connection_id}/imports",
            [],
            fn (ConnectionInterface $db) => $db->table('imports')->insert([
                'client_id' => $this->client->id,
                'connection_id' => $account->connection_id,
                'status' => ImportStatus::Running,
            ]),
        );

        self::assertSame(
            [409, 1],
            [$answer['status'], Import::query()->whereIn('status', ImportStatus::open())->count()],
        );
    }

    public function test_taking_back_while_it_goes_on(): void
    {
        $change = $this->drafted();
        $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        $answer = $this->race(
            'changes',
            $change->id,
            $this->editor,
            'POST',
            "/changes/{$change->id}/reversal",
            [],
            static fn (ConnectionInterface $db) => $db
                ->table('changes')
                ->where('id', $change->id)
                ->update(['status' => 'applying']),
        );

        self::assertSame([409, 1], [$answer['status'], Change::query()->count()]);
    }

    /** The older proof has read its ads; a newer one begins; the older keeps nothing. */
    public function test_an_older_proof_keeps_nothing_once_a_newer_one_has_begun(): void
    {
        $account = $this->imported();
        $this->planned();
        Node::query()
            ->where('is_ad', true)
            ->update(['state' => 'proven', 'fault' => 'of the newer proof']);
        $begun = false;
        DB::listen(static function ($query) use (&$begun, $account): void {
            if (! $begun && str_contains($query->sql, 'from `texts`')) {
                $begun = true;
                DB::connection('owner')->table('accounts')->where('id', $account->id)->increment('proof_turn');
            }
        });
        self::assertFalse($this->app->make(Proof::class)->refresh($account));
        self::assertSame(
            ['of the newer proof'],
            Node::query()->where('is_ad', true)->distinct()->pluck('fault')->all(),
        );
        self::assertTrue($this->app->make(Proof::class)->refresh($account->refresh()));
        self::assertNotSame(
            ['of the newer proof'],
            Node::query()->where('is_ad', true)->distinct()->pluck('fault')->all(),
        );
    }

    public function test_a_place_can_not_have_two_live_texts(): void
    {
        $this->imported();
        $text = Text::query()->where('kind', 'landing')->whereNull('until')->firstOrFail();
        $this->expectExceptionMessage('Duplicate entry');
        DB::table('texts')->insert([
            'node_id' => $text->node_id,
            'kind' => 'landing',
            'name' => '',
            'text' => 'x',
            'since' => now(),
        ]);
    }

    public function test_one_change_of_an_account_is_at_work_at_a_time(): void
    {
        [$one, $other] = [$this->drafted(), $this->drafted()];
        Change::query()
            ->whereKey([$one->id, $other->id])
            ->update(['status' => ChangeStatus::Applying, 'applied_by' => $this->editor->id]);
        $lease = Lease::take($one->refresh());
        self::assertNotNull($lease);
        self::assertNull(Lease::take($other->refresh()));
        $lease->release();
        self::assertNotNull(Lease::take($other));
    }

    public function test_a_step_that_is_begun_again_and_again_and_gets_nowhere_is_stopped_and_says_why(): void
    {
        $change = $this->drafted();
        $change->update([
            'status' => ChangeStatus::Trying,
            'applied_by' => $this->editor->id,
            'begun' => Lease::MOST_BEGINNINGS,
        ]);
        ApplyChange::dispatchSync($change->id);
        self::assertSame([ChangeStatus::Stopped, null], [$change->refresh()->status, $change->worker]);
        self::assertStringContainsString('begun 5 times and got no further', (string) $change->problem);
        $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        self::assertSame(ChangeStatus::Tried, $change->refresh()->status, (string) $change->problem);
    }

    /** Whatever a step throws: the change says so, nobody holds it, and it can be gone on with. */
    public function test_a_fault_of_ours_in_a_step_stops_the_change_and_lets_go_of_it(): void
    {
        $change = $this->drafted();
        $thrown = false;
        Change::updated(static function (Change $c) use (&$thrown): void {
            if ($c->checked && ! $thrown) {
                $thrown = true;
                throw new \ErrorException('something that nobody thought of');
            }
        });
        $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        self::assertTrue($thrown);
        self::assertSame(
            [
                ChangeStatus::Stopped,
                null,
                'Applying stopped by a fault of ours. What was written is noted; go on from here.',
            ],
            [$change->refresh()->status, $change->worker, $change->problem],
        );
        $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        self::assertSame(ChangeStatus::Tried, $change->refresh()->status, (string) $change->problem);
    }

    public function test_texts_of_one_place_set_by_two_in_turn_stay_one(): void
    {
        $this->imported();
        $text = Text::query()->where('kind', 'landing')->whereNull('until')->firstOrFail();
        foreach (['a', 'b', 'b', null, 'c'] as $to) {
            LiveTexts::set($text->node_id, 'landing', '', $to);
        }
        self::assertSame(
            ['c'],
            Text::query()
                ->where(['node_id' => $text->node_id, 'kind' => 'landing'])
                ->whereNull('until')
                ->pluck('text')
                ->all(),
        );
    }
}
