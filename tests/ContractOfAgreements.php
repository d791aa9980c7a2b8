<?php

namespace Tests;

use App\Models\Account;
use App\Models\Node;
use App\Models\Role;
use Vestigon\Core\Channel\ChannelsReader;

/** The calls about what is agreed on, held against the contract. */
trait ContractOfAgreements
{
    private function contractOfPlans(Account $account): void
    {
        $at = '/clients/{client}/plan';
        Contract::holds($this->api('GET', '/plan/revisions'), 'get', "{$at}/revisions");
        $first = $this->api('GET', '/plan/revisions/1');
        Contract::holds($first, 'get', "{$at}/revisions/{revision}");
        $document = ['clickId' => 'optional'] + $first->json('document');
        $differs = $this->api('POST', '/plan/differences', ['document' => $document]);
        Contract::holds($differs, 'post', "{$at}/differences");
        $would = $this->api('POST', '/plan/consequences', ['document' => $document, 'account' => $account->id]);
        Contract::holds($would, 'post', "{$at}/consequences");
        $file = ['name' => 'plan.json', 'content' => base64_encode((string) json_encode($document))];
        Contract::holds($this->api('POST', '/plan/file', $file), 'post', "{$at}/file");
    }

    private function contractOfAgreements(): void
    {
        $at = '/clients/{client}/agreements';
        $words = ['revision' => 0, 'document' => ['format' => 'vestigon.words/1', 'keys' => (object) []]];
        $word = ['key' => 'utm_medium', 'word' => 'cpc', 'use' => 'paid-search'];
        $name = [
            'document' => ['format' => 'vestigon.naming/1', 'separator' => '_', 'parts' => [['name' => 'market']]],
            'rows' => [['market' => 'uk']],
        ];
        $account = $this->client->accounts()->value('id');
        Contract::holds(
            $this->api('GET', "/accounts/{$account}/names/file?as=csv"),
            'get',
            '/clients/{client}/accounts/{account}/names/file',
        );
        $ad = $this->client->accounts()->firstOrFail()->nodes()->where('is_ad', true)->value('id');
        Contract::holds(
            $this->api('POST', "/accounts/{$account}/names/change", ['own' => [['node' => $ad, 'name' => 'Ferry 2']]]),
            'post',
            '/clients/{client}/accounts/{account}/names/change',
        );
        $owner = $this->member(Role::Owner, $this->client);
        $site = ['name' => 'Shop', 'hosts' => ['shop.example']];
        Contract::holds($this->api('POST', '/sites', $site, $owner), 'post', '/clients/{client}/sites');
        Contract::holds($this->api('GET', '/sites'), 'get', '/clients/{client}/sites');
        $id = $this->client->collectors()->where('site', 'Shop')->value('id');
        $arrival = $this->client->arrivals()->create([
            'collector_id' => $id,
            'external_id' => 1,
            'at' => now(),
            'url' => 'https://shop.example/?utm_source=a',
        ]);
        Contract::holds(
            $this->api('GET', "/arrivals/{$arrival->id}/way"),
            'get',
            '/clients/{client}/arrivals/{arrival}/way',
        );
        foreach (['get' => 'GET', 'delete' => 'DELETE'] as $method => $asked) {
            Contract::holds(
                $this->api($asked, "/arrivals/{$arrival->id}/visitor", [], $owner),
                $method,
                '/clients/{client}/arrivals/{arrival}/visitor',
            );
        }
        Contract::holds(
            $this->api('DELETE', "/sites/{$id}", [], $owner),
            'delete',
            '/clients/{client}/sites/{collector}',
        );
        Contract::holds(
            $this->api('POST', '/urls/senders', ['url' => 'https://shop.example/?a=1']),
            'post',
            '/clients/{client}/urls/senders',
        );
        foreach (['many', 'many/file'] as $what) {
            Contract::holds(
                $this->api('POST', "/urls/{$what}", ['urls' => ['https://shop.example/?a=1', 'ferry']]),
                'post',
                "/clients/{client}/urls/{$what}",
            );
        }
        $number = Node::query()->where('is_ad', true)->value('external_id');
        foreach (['', '/file'] as $what) {
            $content = base64_encode("Ad,Clicks\n{$number},3\nnobody,4\n");
            Contract::holds(
                $this->api('POST', "/numbers{$what}", ['name' => 'r.csv', 'content' => $content, 'summed' => [1]]),
                'post',
                "/clients/{client}/numbers{$what}",
            );
        }
        $rules = ['document' => ChannelsReader::shippedDocument()];
        $click = ['values' => ['utm_source' => 'northquay', 'utm_medium' => 'cpc']];
        foreach (
            [
                ['PUT', '/words', '/{kind}', $words],
                ['GET', '/words', '/{kind}', []],
                ['GET', '/keys', '/{kind}', []],
                ['GET', '/words/uses', '/words/uses', []],
                ['POST', '/words/reach', '/words/reach', $word],
                ['POST', '/words/changes', '/words/changes', $word],
                ['POST', '/names/composition', '/names/composition', $name],
                ['POST', '/names/reading', '/names/reading', ['account' => $account]],
                ['GET', '/channels/caught', '/channels/caught', []],
                ['POST', '/channels/trial', '/channels/trial', $click],
                ['POST', '/channels/shift', '/channels/shift', $rules],
            ] as [$method, $path, $pattern, $body]
        ) {
            $answer = $this->api($method, "/agreements{$path}", $body);
            Contract::holds($answer, strtolower($method), $at.$pattern);
        }
    }
}
