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
        Contract::holds($this->api('GET', "/balance/claims?{$days}&by=platform"), 'get', "{$at}/balance/claims");
        $asked = ['from' => $question['from'], 'to' => $question['to'], 'names' => 'then'];
        $reading = $this->api('POST', '/readings', $asked);
        Contract::holds($reading, 'post', "{$at}/readings");
        $one = "/readings/{$reading->json('id')}";
        Contract::holds($this->api('GET', $one), 'get', "{$at}/readings/{reading}");
        Contract::holds($this->api('GET', "{$one}/file"), 'get', "{$at}/readings/{reading}/file");
        $counting = $this->api('GET', '/counting');
        Contract::holds($counting, 'get', "{$at}/counting");
        Contract::holds($this->api('PUT', '/counting', $counting->json()), 'put', "{$at}/counting");

        $log = ['name' => 'a.log', 'content' => base64_encode("garbage\n")];
        $logs = "{$at}/sites/{collector}/files";
        Contract::holds($this->api('POST', "/sites/{$site->id}/files", $log), 'post', $logs);
        Contract::holds($this->api('GET', "/sites/{$site->id}/files"), 'get', $logs);
        $sheet = ['name' => 'a.csv', 'content' => base64_encode("Order,Time\nT1,2026-10-05\n"), 'kind' => 'events'];
        $said = ['tables' => [['use' => true, 'means' => ['order', 'at'], 'decimal' => '.', 'days' => null]]];
        foreach (['DELETE' => '', 'POST' => '/reading'] as $method => $behind) {
            $file = "/sites/{$site->id}/files/".$this->api('POST', "/sites/{$site->id}/files", $sheet)->json('id');
            Contract::holds($this->api('GET', $file), 'get', "{$logs}/{siteFile}");
            Contract::holds($this->api('PUT', $file, $said), 'put', "{$logs}/{siteFile}");
            $put = $this->api($method, "{$file}{$behind}");
            Contract::holds($put, strtolower($method), "{$logs}/{siteFile}{$behind}");
        }
        $feed = $this->api('POST', '/feeds', ['name' => 'f']);
        Contract::holds($feed, 'post', "{$at}/feeds");
        $feed = $feed->json('id');
        $list = static function (int $n): array {
            $rows = array_map(static fn (int $i): string => "{$i},https://a.example/", range(1, $n));
            $text = "id,link\n".implode("\n", $rows);

            return [
                'file' => "a-list-of-{$n}",
                'bytes' => strlen($text),
                'from' => 0,
                'content' => base64_encode($text),
            ];
        };
        $part = ['content' => base64_encode('id')] + $list(9);
        Contract::holds($this->api('PUT', "/feeds/{$feed}/file", $part), 'put', "{$at}/feeds/{feed}/file");
        $rest = ['from' => 2, 'content' => base64_encode(substr(base64_decode($list(9)['content']), 2))] + $list(9);
        $told = $this->api('PUT', "/feeds/{$feed}/file", $rest);
        Contract::holds($told, 'put', "{$at}/feeds/{feed}/file");
        $rules = [
            'rules' => [['title' => 'r', 'do' => [['take' => 'a']]]],
            'reads' => $told->json('feed.reads'),
            'why' => 'x',
        ];
        Contract::holds($this->api('POST', "/feeds/{$feed}/trial", $rules), 'post', "{$at}/feeds/{feed}/trial");
        $this->client->refresh()->update(['needs_approval' => false]); // by one person alone
        foreach (['discard', 'application'] as $how) {
            $draft = $this->api('POST', "/feeds/{$feed}/drafts", $rules);
            Contract::holds($draft, 'post', "{$at}/feeds/{feed}/drafts");
            $one = "/feeds/{$feed}/drafts/{$draft->json('id')}";
            Contract::holds($this->api('GET', $one), 'get', "{$at}/feeds/{feed}/drafts/{draft}");
            Contract::holds($this->api('POST', "{$one}/{$how}"), 'post', "{$at}/feeds/{feed}/drafts/{draft}/{$how}");
        }
        Contract::holds($this->api('GET', "/feeds/{$feed}/drafts"), 'get', "{$at}/feeds/{feed}/drafts");
        $held = $this->api('PUT', "/feeds/{$feed}/file", $list(2))->json('feed.held.id');
        Contract::holds(
            $this->api('POST', "/feeds/{$feed}/copies/{$held}/acceptance"),
            'post',
            "{$at}/feeds/{feed}/copies/{copy}/acceptance",
        );
        $change = ['address' => 'https://nowhere.invalid/list.xml', 'everyMinutes' => 60];
        Contract::holds($this->api('PUT', "/feeds/{$feed}", $change), 'put', "{$at}/feeds/{feed}");
        Contract::holds($this->api('POST', "/feeds/{$feed}/fetch"), 'post', "{$at}/feeds/{feed}/fetch");
        Contract::holds($this->api('GET', '/feeds'), 'get', "{$at}/feeds");
        Contract::holds($this->api('GET', "/feeds/{$feed}"), 'get', "{$at}/feeds/{feed}");
        Contract::holds($this->api('DELETE', "/feeds/{$feed}"), 'delete', "{$at}/feeds/{feed}");
        Contract::holds($this->api('GET', '/feeds'), 'get', "{$at}/feeds");
        Contract::holds($this->api('POST', "/feeds/{$feed}/return"), 'post', "{$at}/feeds/{feed}/return");

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
        foreach (['html', 'xlsx'] as $kind) {
            Contract::holds($this->api('GET', "/troubles/report?kind={$kind}"), 'get', "{$at}/troubles/report");
        }
        Contract::holds($this->api('GET', "/troubles/{$trouble->id}/ads"), 'get', "{$at}/troubles/{trouble}/ads");
        $until = ['until' => now()->addDays(9)->toDateString(), 'why' => 'it is off season'];
        $accepted = "/troubles/{$trouble->id}/accepted";
        Contract::holds($this->api('PUT', $accepted, $until), 'put', "{$at}/troubles/{trouble}/accepted");
        Contract::holds($this->api('DELETE', $accepted), 'delete', "{$at}/troubles/{trouble}/accepted");
    }
}
