<?php

namespace Tests\Feature;

use App\Jobs\ImportAccounts;
use App\Models\Import;
use App\Models\ImportStatus;
use App\Models\Node;
use App\Models\Text;
use Illuminate\Support\Facades\Http;
use Tests\TestCase;

final class ImportTest extends TestCase
{
    public function test_brings_the_whole_account_in_once_however_often_it_runs(): void
    {
        $account = $this->imported();
        $counts = [Node::query()->count(), Text::query()->count()];
        self::assertSame([852, 806], [$counts[0], Text::query()->whereNull('until')->count()]);

        $import = $this->client
            ->imports()
            ->create(['connection_id' => $account->connection_id, 'status' => ImportStatus::Queued]);
        ImportAccounts::dispatchSync($import->id);
        self::assertSame($counts, [Node::query()->count(), Text::query()->count()]);
        self::assertSame([ImportStatus::Done, 852, 852], [$import->refresh()->status, $import->total, $import->done]);
    }

    public function test_a_text_that_changed_is_kept_with_the_time_in_which_it_was_live(): void
    {
        $account = $this->imported();
        $text = Text::query()->where('kind', 'suffix')->firstOrFail();
        Text::query()
            ->whereKey($text->id)
            ->update(['text' => 'what it was before']);
        $import = $this->client
            ->imports()
            ->create(['connection_id' => $account->connection_id, 'status' => ImportStatus::Queued]);
        ImportAccounts::dispatchSync($import->id);

        self::assertNotNull($text->refresh()->until);
        self::assertSame($text->getOriginal('text'), 'what it was before');
        self::assertSame(
            'utm_source=northquay&utm_medium=cpc',
            Text::query()
                ->where('node_id', $text->node_id)
                ->where('kind', 'suffix')
                ->whereNull('until')
                ->value('text'),
        );
    }

    public function test_a_platform_that_is_down_fails_the_import_and_leaves_what_is_there(): void
    {
        $account = $this->imported();
        $nodes = Node::query()->count();
        $this->order('down', 3);
        $this->api('POST', "/connections/{$account->connection_id}/imports")->assertStatus(202);

        $import = Import::query()->latest('id')->firstOrFail();
        self::assertSame(ImportStatus::Failed, $import->status);
        self::assertStringContainsString('Northquay Search is down', (string) $import->problem);
        self::assertSame($nodes, Node::query()->count());
    }

    public function test_one_hiccup_is_tried_again(): void
    {
        $this->order('down', 2);
        self::assertSame(
            803,
            Node::query()->where('account_id', $this->imported()->id)->where('is_ad', true)->count(),
        );
    }

    public function test_a_second_import_at_the_same_time_is_refused(): void
    {
        $account = $this->imported();
        $this->client->imports()->create([
            'connection_id' => $account->connection_id,
            'status' => ImportStatus::Running,
        ]);
        $this->api('POST', "/connections/{$account->connection_id}/imports")
            ->assertStatus(409)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'running already'));
    }

    public function test_a_service_can_not_send_the_server_elsewhere(): void
    {
        Http::fake(['*' => Http::response('', 302, ['Location' => 'http://169.254.169.254/secrets'])]);
        $account = $this->client->connections()->create([
            'dialect' => 'northquay-search',
            'title' => 'N',
            'credentials' => ['client' => 'a', 'secret' => 'b'],
        ]);
        $this->api('POST', "/connections/{$account->id}/imports")->assertStatus(202);

        self::assertStringContainsString('makes no sense', (string) Import::query()->firstOrFail()->problem);
        Http::assertSentCount(3);
    }
}
