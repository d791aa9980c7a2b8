<?php

namespace Tests;

use App\Dialects\Dialects;
use App\Links\Making;
use App\Links\Wanted;
use App\Models\Change;
use App\Models\Finding;
use App\Models\Import;
use App\Models\Intake;
use App\Models\Node;
use App\Models\OutsideChange;
use App\Models\Role;
use App\SignIn\Invitations;
use Illuminate\Support\Facades\Route;

/** All calls of the API that are for a client, and something for every place in their addresses. */
trait EveryCall
{
    /** @return array<string, int|string> a thing of ours for every place in an address */
    private function things(): array
    {
        $account = $this->imported();
        $this->planned();
        $change = Change::factory()->of($account)->create(['user_id' => $this->editor->id]);
        $filter = $this->client->filters()->create(['account_id' => $account->id, 'name' => 'f', 'filter' => []]);
        $map = $this->client
            ->sheetMaps()
            ->create(['title' => 'm', 'dialect' => 'mossfeed', 'document' => SheetMapOf::ads('mossfeed')]);

        $ninth = ['id' => 'ninth'] + (array) Dialects::shippedDocument('mossfeed');
        $this->app->make(Dialects::class)->save($this->client, $ninth, 0, $this->editor->id);

        $intake = Intake::factory()->create(['client_id' => $this->client->id, 'user_id' => $this->editor->id]);

        $site = $this->client
            ->collectors()
            ->create(['site' => 'every', 'hosts' => ['v.example'], 'key' => str_repeat('k', 24)]);

        $words = ['secret' => str_repeat('s', 40), 'call' => str_repeat('c', 40)];
        $feed = $this->client->feeds()->create(['name' => 'f'] + $words);
        $copy = $feed->copies()->create([
            'came_at' => now(),
            'bytes' => 1,
            'items' => 1,
            'digest' => md5(''),
            'state' => 'past',
        ]);

        return [
            '{feed}' => $feed->id,
            '{copy}' => $copy->id,
            '{draft}' => $feed->drafts()->create([
                'copy_id' => $copy->id,
                'rules' => [],
                'reads' => [],
                'state' => 'discarded',
                'made_at' => now(),
            ])->id,
            '{client}' => $this->client->id,
            '{account}' => $account->id,
            '{node}' => Node::query()->where('is_ad', true)->firstOrFail()->id,
            '{change}' => $change->id,
            '{connection}' => $account->connection_id,
            '{member}' => $this->member(Role::Editor, $this->client)->id,
            '{invitation}' => app(Invitations::class)->make($this->client, null, 'x@y.example', Role::Viewer)[0]->id,
            '{intake}' => $intake->id,
            '{file}' => $intake->files()->create(['name' => 'a.csv', 'bytes' => 10])->id,
            '{finding}' => Finding::query()->where('account_id', $account->id)->firstOrFail()->id,
            '{filter}' => $filter->id,
            '{reading}' => $this->client->readings()->create([
                'from_day' => '2026-11-01',
                'to_day' => '2026-11-02',
                'names' => 'today',
                'status' => 'done',
            ])->id,
            '{sheetMap}' => $map->id,
            '{kind}' => 'words',
            '{revision}' => 1,
            '{outsideChange}' => OutsideChange::query()->create([
                'account_id' => $account->id,
                'node_id' => Node::query()->where('is_ad', true)->firstOrFail()->id,
                'import_id' => Import::query()->firstOrFail()->id,
                'kind' => 'landing',
                'found_at' => now(),
            ])->id,
            '{tracker}' => $this->client->trackers()->firstOrFail()->id,
            '{dialect}' => 'ninth',
            '{collector}' => $site->id,
            '{siteFile}' => $site->siteFiles()->create([
                'name' => 'a.csv',
                'bytes' => 9,
                'came_at' => now(),
                'state' => 'read',
            ])->id,
            '{trouble}' => $this->client->troubles()->create([
                'account_id' => $account->id,
                'kind' => 'broken',
                'hash' => md5('every'),
                'what' => 'utm_source does not arrive.',
                'first_at' => now(),
            ])->id,
            '{link}' => app(Making::class)->make(
                $this->client,
                $this->editor,
                [Wanted::of(['landing' => 'https://v.example/', 'pairs' => ['utm_source' => 'every']])],
            )[0],
            '{shortHost}' => $this->client->shortHosts()->create(['host' => 'every.example'])->id,
            '{resultView}' => $this->client->resultViews()->create([
                'user_id' => $this->editor->id,
                'name' => 'mine',
                'query' => [],
            ])->id,
            '{arrival}' => $this->client->arrivals()->create([
                'collector_id' => $site->id,
                'external_id' => 1,
                'at' => now(),
                'url' => 'https://v.example/',
            ])->id,
        ];
    }

    /** @return list<array{string, string}> method and pattern of every call for a client */
    private static function calls(): array
    {
        $calls = [];
        foreach (Route::getRoutes() as $route) {
            foreach (
                str_contains($route->uri(), '{client}') ? array_diff($route->methods(), ['HEAD']) : [] as $method
            ) {
                $calls[] = [$method, '/'.$route->uri()];
            }
        }

        return $calls;
    }
}
