<?php

namespace Tests\Feature;

use App\Accounts\Proof;
use App\Accounts\ProofParts;
use App\Accounts\ProofTurn;
use App\Models\Account;
use App\Models\Finding;
use App\Models\Import;
use App\Models\Node;
use App\Models\OutsideChange;
use App\Support\Overtaken;
use Tests\TestCase;

/** An account's proof that several processes share is the proof that one makes. */
final class ProofPartsTest extends TestCase
{
    private Account $account;

    private Proof $proof;

    protected function setUp(): void
    {
        parent::setUp();
        $this->account = $this->imported();
        $this->planned();
        $this->proof = $this->app->make(Proof::class);
    }

    public function test_three_processes_find_what_one_finds(): void
    {
        $this->proof->refresh($this->account, 1);
        $one = $this->kept();
        self::assertContains('broken', array_column($one['nodes'], 'state'));
        self::assertGreaterThan(3, count($one['findings']));
        Node::query()->update(['state' => null, 'fault' => null, 'fault_keys' => '', 'ads' => 0, 'broken' => 0]);
        Finding::query()->delete();

        self::assertTrue($this->proof->refresh($this->account->refresh(), 3));
        self::assertSame($one, $this->kept());
    }

    public function test_what_changed_outside_is_judged_by_all_of_them(): void
    {
        $this->proof->refresh($this->account, 1);
        $top = Node::query()->where(['account_id' => $this->account->id, 'depth' => 0])->firstOrFail();
        $change = OutsideChange::query()->create([
            'account_id' => $this->account->id,
            'import_id' => Import::query()->firstOrFail()->id,
            'node_id' => $top->id,
            'kind' => 'suffix',
            'name' => '',
            'before' => null,
            'after' => 'utm_source=northquay',
            'found_at' => now(),
        ]);
        $ads = Node::query()->where(['account_id' => $this->account->id, 'is_ad' => true]);
        $ads->clone()->update(['state' => 'proven', 'fault' => null]);
        $this->proof->refresh($this->account->refresh(), 2);

        $broken = $ads->clone()->where('state', '!=', 'proven')->count();
        self::assertGreaterThan(1, $broken);
        self::assertSame($broken, $change->refresh()->breaks);
        self::assertTrue((bool) $change->judged);
    }

    public function test_a_newer_proof_ends_them(): void
    {
        $turn = ProofTurn::begin($this->account);
        ProofTurn::begin($this->account);
        $this->expectException(Overtaken::class);
        $this->app->make(ProofParts::class)->prove($this->account, $turn, 2);
    }

    public function test_one_that_fails_is_told_and_nothing_is_kept_of_the_whole(): void
    {
        Finding::query()->delete();
        [$was, $nowhere] = [(string) getenv('DB_DATABASE'), 'vestigon_nowhere'];
        putenv("DB_DATABASE={$nowhere}");
        $_ENV['DB_DATABASE'] = $_SERVER['DB_DATABASE'] = $nowhere;
        try {
            $this->proof->refresh($this->account, 2);
            self::fail('it went well without a database');
        } catch (\RuntimeException $e) {
            self::assertStringContainsString('a process beside this one has failed', $e->getMessage());
            self::assertStringContainsString($nowhere, $e->getMessage());
        } finally {
            putenv("DB_DATABASE={$was}");
            $_ENV['DB_DATABASE'] = $_SERVER['DB_DATABASE'] = $was;
        }
        self::assertSame(0, Finding::query()->count());
    }

    /** @return array{nodes: list<array<string, mixed>>, findings: list<array<string, mixed>>} */
    private function kept(): array
    {
        return [
            'nodes' => Node::query()
                ->orderBy('id')
                ->get(['id', 'state', 'fault', 'fault_keys', 'ads', 'proven', 'broken', 'untracked'])
                ->toArray(),
            'findings' => Finding::query()
                ->orderBy('position')
                ->get(['position', 'code', 'node_id', 'kind', 'name', 'at', 'key', 'reason', 'count'])
                ->toArray(),
        ];
    }
}
