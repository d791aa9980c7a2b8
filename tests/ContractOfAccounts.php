<?php

namespace Tests;

use App\Models\Import;
use App\Models\Node;
use App\Models\OutsideChange;
use App\Models\Role;
use Illuminate\Support\Facades\Http;

/** The calls about where accounts come from and what clicks pass, held against the contract. */
trait ContractOfAccounts
{
    private function intakesKeepTheContract(): void
    {
        $at = self::C.'/intakes/{intake}';
        $new = ['dialect' => 'mossfeed', 'number' => 'M-900', 'name' => 'Moss'];
        $intake = $this->api('POST', '/intakes', $new);
        Contract::holds($intake, 'post', self::C.'/intakes');
        $path = '/intakes/'.$intake->json('id');
        foreach (["Campaign id,Item id,Item,Link\n7,1,x,https://v.example\n,2,y,\n", "\x89PNG"] as $i => $content) {
            $file = $this->api('POST', "{$path}/files", ['name' => "{$i}.csv", 'bytes' => strlen($content)]);
            Contract::holds($file, 'post', "{$at}/files");
            $part = ['from' => 0, 'content' => base64_encode($content)];
            Contract::holds($this->api('PUT', "{$path}/files/{$file->json('id')}", $part), 'put', "{$at}/files/{file}");
        }
        Contract::holds($this->api('GET', $path), 'get', $at);
        $removed = $this->api('DELETE', "{$path}/files/{$file->json('id')}");
        Contract::holds($removed, 'delete', "{$at}/files/{file}");
        Contract::holds($this->api('GET', '/intakes'), 'get', self::C.'/intakes');
        $look = ['revision' => $removed->json('revision'), 'title' => '0', 'headingRow' => 1];
        $looked = $this->api('PUT', "{$path}/look", $look + ['delimiter' => ',', 'encoding' => null]);
        Contract::holds($looked, 'put', "{$at}/look");
        $columns = [
            ['heading' => 'Campaign id', 'means' => 'campaign.id'],
            ['heading' => 'Item id', 'means' => 'id'],
            ['heading' => 'Link', 'means' => 'slot.landing'],
        ];
        $reading = $this->api('PUT', "{$path}/reading", [
            'revision' => $looked->json('revision'),
            'title' => 'm',
            'tables' => [['title' => '0', 'use' => true, 'level' => 'item', 'columns' => $columns]],
        ]);
        Contract::holds($reading, 'put', "{$at}/reading");
        self::assertSame(['no-parent' => 1], $reading->json('counts.problems'));
        Contract::holds($this->api('GET', "{$path}/problems"), 'get', "{$at}/problems");
        Contract::holds($this->api('GET', "{$path}/problems/file?as=csv"), 'get', "{$at}/problems/file");
        $import = $this->api('POST', "{$path}/import", ['revision' => $reading->json('revision'), 'whole' => []]);
        Contract::holds($import, 'post', "{$at}/import");
        $change = $this->api('POST', '/changes', [
            'account' => $import->json('account'),
            'title' => 'x',
            'texts' => [
                [
                    'node' => Node::query()->where(['external_id' => '1', 'level' => 'item'])->value('id'),
                    'slot' => 'landing',
                    'text' => 'https://v.example/?a=1',
                ],
            ],
        ])->json('id');
        $this->api('POST', "/changes/{$change}/application")->assertStatus(202);
        $taken = $this->api('POST', "/changes/{$change}/sheet/taken");
        Contract::holds($taken, 'post', self::C.'/changes/{change}/sheet/taken');
        $other = $this->api('POST', '/intakes', ['number' => 'M-901'] + $new)->json('id');
        Contract::holds($this->api('DELETE', "/intakes/{$other}"), 'delete', $at);
    }

    private function contractOfConnections(): void
    {
        config(['platforms.adapters.hosts' => ['adapter.localhost'], 'platforms.near' => ['adapter.localhost:1']]);
        Http::fake(['adapter.localhost:1/*' => Http::response(['items' => [], 'testClicks' => false])]);
        $owner = $this->member(Role::Owner, $this->client);
        $told = ['title' => 'a', 'dialect' => 'mossfeed', 'address' => 'http://adapter.localhost:1', 'token' => 't'];
        $made = $this->api('POST', '/connections', $told, $owner);
        Contract::holds($made, 'post', self::C.'/connections');
        $gone = $this->api('DELETE', "/connections/{$made->json('id')}", [], $owner);
        Contract::holds($gone, 'delete', self::C.'/connections/{connection}');
    }

    private function contractOfLearning(string $text): void
    {
        $at = self::C.'/platforms';
        $pasted = ['text' => "[id]\tid of the campaign\n[go]\tlanding page\n[x]\t"];
        Contract::holds($this->api('POST', '/platforms/placeholders', $pasted), 'post', "{$at}/placeholders");
        $nodes = [['level' => 'account', 'slots' => ['suffix' => 'a=1']], ['level' => 'campaign', 'type' => 'content']];
        $nodes[] = ['level' => 'teaser', 'slots' => ['landing' => 'https://v.example/']];
        foreach (['https://v.example/?a=1&rrcid=8', 'https://v.example/?b=1'] as $url) {
            $told = $this->api('POST', '/platforms/explanation', ['text' => $text, 'nodes' => $nodes, 'url' => $url]);
            Contract::holds($told, 'post', "{$at}/explanation");
        }
        $weighed = $this->api('POST', '/platforms/consequences', ['text' => $text]);
        Contract::holds($weighed, 'post', "{$at}/consequences");
    }

    private function contractOfTrackers(): void
    {
        $told = ['host' => 'go.x.example', 'parameter' => 'to', 'forwards' => true, 'adds' => []];
        $at = self::C.'/trackers';
        $made = $this->api('POST', '/trackers', $told + ['revision' => 0]);
        Contract::holds($made, 'post', $at);
        Contract::holds($this->api('GET', '/trackers'), 'get', $at);
        $trial = $this->api('POST', '/trackers/trial', $told + ['url' => 'https://go.x.example/?to=https://v.example']);
        Contract::holds($trial, 'post', "{$at}/trial");
        $one = "/trackers/{$made->json('id')}";
        Contract::holds($this->api('PUT', $one, $told + ['revision' => 1]), 'put', "{$at}/{tracker}");
        $counts = ['name' => 'c.csv', 'content' => base64_encode("Date,Clicks\n2026-11-01,30\nsome day,4\n")];
        Contract::holds($this->api('PUT', "{$one}/counts", $counts), 'put', "{$at}/{tracker}/counts");
        Contract::holds($this->api('DELETE', $one), 'delete', "{$at}/{tracker}");
    }

    private function contractOfOutside(int $account, int $connection, Node $ad): void
    {
        $one = OutsideChange::query()->create([
            'account_id' => $account,
            'node_id' => $ad->id,
            'import_id' => Import::query()->firstOrFail()->id,
            'kind' => 'landing',
            'before' => 'https://v.example/before',
            'after' => 'https://v.example/after',
            'found_at' => now(),
        ]);
        $items = ['items' => [$one->id]];
        $at = self::C.'/accounts/{account}/outside';
        $call = fn (string $method, string $path) => $this->api($method, "/accounts/{$account}/outside{$path}", $items);
        Contract::holds($this->api('GET', '/outside'), 'get', self::C.'/outside');
        $agreed = $this->api('GET', "/outside/{$one->id}/agreement");
        Contract::holds($agreed, 'get', self::C.'/outside/{outsideChange}/agreement');
        Contract::holds($call('POST', '/acceptance'), 'post', "{$at}/acceptance");
        Contract::holds($this->api('GET', '/outside?decided=1'), 'get', self::C.'/outside');
        Contract::holds($call('DELETE', '/acceptance'), 'delete', "{$at}/acceptance");
        Contract::holds($call('POST', '/return'), 'post', "{$at}/return");
        $daily = ['everyHours' => 24, 'quietFrom' => 22, 'quietUntil' => 6];
        $schedule = $this->api('PUT', "/connections/{$connection}/schedule", $daily);
        Contract::holds($schedule, 'put', self::C.'/connections/{connection}/schedule');
    }
}
