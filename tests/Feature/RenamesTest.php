<?php

namespace Tests\Feature;

use App\Jobs\ImportAccounts;
use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\ImportStatus;
use App\Models\Node;
use App\Models\OutsideChange;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** Names as writes of a change: to a platform that is asked, to one whose names freeze, with what was before kept. */
final class RenamesTest extends TestCase
{
    private const CAMPAIGNS = [
        'format' => 'vestigon.naming/1',
        'separator' => ' | ',
        'for' => ['levels' => ['campaign']],
        'parts' => [['name' => 'market', 'words' => ['Halvey', 'Skerrow']], ['name' => 'aim']],
    ];

    protected function setUp(): void
    {
        parent::setUp();
        $this->planned();
        $this->api('PUT', '/agreements/names', ['revision' => 0, 'document' => ['patterns' => [self::CAMPAIGNS]]])
            ->assertOk();
    }

    /** @param array<int, string|null> $own by node id */
    private function drafted(Account $account, array $own = []): Change
    {
        $answer = $this->api('POST', "/accounts/{$account->id}/names/change", [
            'own' => array_map(
                static fn (int $node, ?string $name): array => ['node' => $node, 'name' => $name],
                array_keys($own),
                $own,
            ),
        ])->assertStatus(202);

        return Change::query()->findOrFail($answer->json('id'));
    }

    private function carriedOut(Change $change): void
    {
        for ($stage = 0; $stage < 2 && $change->refresh()->status !== ChangeStatus::Done; $stage++) {
            $this->api('POST', "/changes/{$change->id}/application", ['draft' => $change->draft])->assertStatus(202);
        }
        self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
    }

    private function importedAgain(Account $account): void
    {
        $import = $this->client->imports()->create([
            'connection_id' => $account->connection_id,
            'status' => ImportStatus::Queued,
        ]);
        ImportAccounts::dispatchSync($import->id);
    }

    /** @return array<int, string> names of an account's campaigns, by id */
    private static function campaigns(Account $account): array
    {
        return Node::query()
            ->where(['account_id' => $account->id, 'level' => 'campaign'])
            ->orderBy('id')
            ->pluck('name', 'id')
            ->all();
    }

    public function test_names_are_written_read_back_kept_in_the_ledger_and_taken_back(): void
    {
        $account = $this->imported();
        $was = self::campaigns($account);
        $one = array_key_first($was);
        $off = [$one => 'skerrow - Foot'] + array_map(static fn (): null => null, $was);
        $this->carriedOut($this->drafted($account, $off));

        self::assertSame([$one => 'skerrow - Foot'] + $was, self::campaigns($account));
        self::assertSame([$was[$one]], DB::table('former_names')->where('node_id', $one)->pluck('name')->all());
        $entry = DB::table('ledger')->where(['node_id' => $one, 'kind' => 'name'])->sole();
        self::assertSame([$was[$one], 'skerrow - Foot'], [$entry->before, $entry->after]);
        self::assertContains($one, array_column($this->api('GET', '/search?q=skerrow+foot')->json('nodes'), 'id'));

        // now the pattern knows what is meant
        $change = $this->drafted($account, array_map(static fn (): null => null, array_slice($was, 1, null, true)));
        $write = $change->writes()->where('kind', 'name')->sole();
        self::assertSame([$one, 'skerrow - Foot', 'Skerrow | Foot'], [$write->node_id, $write->before, $write->after]);
        $this->carriedOut($change);
        $this->importedAgain($account);
        self::assertSame('Skerrow | Foot', self::campaigns($account)[$one], 'the platform has it');
        self::assertSame(0, OutsideChange::query()->count(), 'what we write ourselves is no change from outside');

        $back = $this->api('POST', "/changes/{$change->id}/reversal")->assertStatus(202)->json('id');
        $back = Change::query()->findOrFail($back);
        self::assertStringNotContainsString('Beware', (string) $back->reason);
        $this->carriedOut($back);
        self::assertSame('skerrow - Foot', self::campaigns($account)[$one]);
    }

    public function test_a_name_that_was_changed_outside_is_put_back(): void
    {
        $account = $this->imported();
        $was = self::campaigns($account);
        $one = array_key_first($was);
        // as if we had known it by another name
        Node::query()->whereKey($one)->update(['name' => 'Halvey | Brand']);
        $this->importedAgain($account);
        $outside = OutsideChange::query()->where(['node_id' => $one, 'kind' => 'name'])->sole();
        $id = $this->api('POST', "/accounts/{$account->id}/outside/return", ['items' => [$outside->id]])
            ->assertStatus(202)
            ->json('id');
        $this->carriedOut(Change::query()->findOrFail($id));
        $this->importedAgain($account);

        self::assertSame('Halvey | Brand', self::campaigns($account)[$one]);
    }

    public function test_where_names_freeze_what_was_published_keeps_the_old_one(): void
    {
        $account = $this->imported('HR-40', 'hearthring', 'hearth-3385');
        $ad = $account->nodes()->where('is_ad', true)->whereNull('published_name')->firstOrFail();
        $was = $ad->name;
        $change = $this->drafted($account, [$ad->id => 'Another post']);
        self::assertSame([1, true], [$change->story['names'], $change->story['namesFreeze']]);
        $this->carriedOut($change);

        self::assertSame(['Another post', $was], [$ad->refresh()->name, $ad->published_name]);
        $this->importedAgain($account);
        self::assertSame(['Another post', $was], [$ad->refresh()->name, $ad->published_name], 'so says the platform');
    }

    public function test_what_can_t_be_a_name_is_refused(): void
    {
        $account = $this->imported();
        $node = array_key_first(self::campaigns($account));
        foreach ([' ', "two\nlines", str_repeat('n', 256)] as $name) {
            $this->api('POST', '/changes', [
                'account' => $account->id,
                'title' => 'Rename',
                'texts' => [['node' => $node, 'slot' => 'name', 'text' => $name]],
            ])
                ->assertStatus(422)
                ->assertJsonPath('message', static fn (string $m): bool => str_contains($m, 'A name has from 1'));
        }
        $stays = array_map(
            static fn (int $n): array => ['node' => $n, 'name' => null],
            array_keys(self::campaigns($account)),
        );
        $this->api('POST', "/accounts/{$account->id}/names/change", ['own' => $stays])
            ->assertStatus(422)
            ->assertJsonPath('message', static fn (string $m): bool => str_contains($m, 'is to become another'));
    }
}
