<?php

namespace Tests;

use App\Models\Role;

/** The calls about what has arrived, and what is wrong: a success of each, as the document says. */
trait ContractOfWatching
{
    private function contractOfWatching(): void
    {
        $at = '/clients/{client}';
        $owner = $this->member(Role::Owner, $this->client);
        $site = $this->client
            ->collectors()
            ->create(['site' => 'Watched', 'hosts' => ['watched.example'], 'key' => str_repeat('w', 24)]);
        Contract::holds(
            $this->api('POST', "/sites/{$site->id}/token", [], $owner),
            'post',
            "{$at}/sites/{collector}/token",
        );
        $this->call(
            'POST',
            "/in/{$site->key}",
            server: ['HTTP_ORIGIN' => 'https://watched.example'],
            content: (string) json_encode([
                'sent' => now()->toIso8601ZuluString('millisecond'),
                'events' => [
                    [
                        'id' => 'w1',
                        'site' => 'here',
                        'kind' => 'view',
                        'at' => now()->toIso8601ZuluString('millisecond'),
                        'url' => 'https://watched.example/?utm_source=a&utm_medium=cpc',
                        'visitor' => 'w',
                    ],
                ],
            ]),
        )->assertStatus(202);
        $this->artisan('arrivals:read')->assertSuccessful();
        $question = [
            'by' => ['source'],
            'from' => now()->subDay()->toDateString(),
            'to' => now()->addDay()->toDateString(),
            'beside' => 'year',
            'where' => [['by' => 'medium', 'is' => ['cpc']]],
        ];
        $told = $this->api('POST', '/results', $question);
        self::assertCount(1, $told->json('lines'));
        Contract::holds($told, 'post', "{$at}/results");
        Contract::holds($this->api('POST', '/results/sessions', $question), 'post', "{$at}/results/sessions");
        foreach (['csv', 'xlsx'] as $kind) {
            Contract::holds(
                $this->api('POST', '/results/file', $question + ['kind' => $kind]),
                'post',
                "{$at}/results/file",
            );
        }
        $kept = $this->api('POST', '/results/views', ['name' => 'mine', 'query' => ['by' => ['ad']]]);
        Contract::holds($kept, 'post', "{$at}/results/views");
        Contract::holds($this->api('GET', '/results/views'), 'get', "{$at}/results/views");
        Contract::holds(
            $this->api('DELETE', "/results/views/{$kept->json('id')}"),
            'delete',
            "{$at}/results/views/{resultView}",
        );
        $days = "from={$question['from']}&to={$question['to']}";
        Contract::holds($this->api('GET', "/balance?{$days}&by=platform"), 'get', "{$at}/balance");
        $counting = $this->api('GET', '/counting');
        Contract::holds($counting, 'get', "{$at}/counting");
        Contract::holds($this->api('PUT', '/counting', $counting->json()), 'put', "{$at}/counting");

        $row = ['landing' => 'https://watched.example/', 'pairs' => ['utm_source' => 'Post'], 'short' => true];
        Contract::holds($this->api('POST', '/links/look', ['rows' => [$row]]), 'post', "{$at}/links/look");
        $made = $this->api('POST', '/links', ['rows' => [$row, ['landing' => 'x']]]);
        Contract::holds($made, 'post', "{$at}/links");
        $link = $made->json('made.0.id');
        $otherwise = ['landing' => 'https://watched.example/b', 'pairs' => ['utm_source' => 'post'], 'why' => 'moved'];
        Contract::holds($this->api('PUT', "/links/{$link}", $otherwise), 'put', "{$at}/links/{link}");
        Contract::holds($this->api('GET', "/links/{$link}"), 'get', "{$at}/links/{link}");
        Contract::holds($this->api('GET', '/links'), 'get', "{$at}/links");
        Contract::holds($this->api('DELETE', "/links/{$link}"), 'delete', "{$at}/links/{link}");
        Contract::holds($this->api('POST', "/links/{$link}/return"), 'post', "{$at}/links/{link}/return");
        foreach (['csv', 'xlsx'] as $kind) {
            Contract::holds($this->api('GET', "/links/file?kind={$kind}"), 'get', "{$at}/links/file");
        }
        $sheet = ['name' => 'a.csv', 'content' => base64_encode("page,source\nhttps://watched.example/,post\n")];
        Contract::holds($this->api('POST', '/links/sheet', $sheet), 'post', "{$at}/links/sheet");
        $host = $this->api('POST', '/links/hosts', ['host' => 'go.watched.example'], $owner);
        Contract::holds($host, 'post', "{$at}/links/hosts");
        Contract::holds($this->api('GET', '/links/hosts'), 'get', "{$at}/links/hosts");
        Contract::holds(
            $this->api('DELETE', "/links/hosts/{$host->json('id')}", [], $owner),
            'delete',
            "{$at}/links/hosts/{shortHost}",
        );

        $trouble = $this->client->troubles()->create([
            'account_id' => $this->client->accounts()->value('id'),
            'kind' => 'broken',
            'hash' => md5('contract'),
            'what' => 'utm_source does not arrive.',
            'first_at' => now(),
        ]);
        Contract::holds($this->api('GET', '/troubles'), 'get', "{$at}/troubles");
        Contract::holds($this->api('GET', "/troubles/{$trouble->id}/ads"), 'get', "{$at}/troubles/{trouble}/ads");
        $until = ['until' => now()->addDays(9)->toDateString(), 'why' => 'it is off season'];
        $accepted = "/troubles/{$trouble->id}/accepted";
        Contract::holds($this->api('PUT', $accepted, $until), 'put', "{$at}/troubles/{trouble}/accepted");
        Contract::holds($this->api('DELETE', $accepted), 'delete', "{$at}/troubles/{trouble}/accepted");
    }
}
