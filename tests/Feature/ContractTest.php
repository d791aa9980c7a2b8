<?php

namespace Tests\Feature;

use App\Models\Node;
use Tests\Contract;
use Tests\TestCase;

/** Every answer is as the published document says. */
final class ContractTest extends TestCase
{
    private const C = '/clients/{client}';

    public function test_every_call_keeps_the_contract(): void
    {
        $account = $this->imported();
        Contract::holds($this->actingAs($this->editor)->getJson('/api/v1/session'), 'get', '/session');
        Contract::holds($this->api('GET', '/plan'), 'get', self::C.'/plan');
        $saved = $this->api('PUT', '/plan', ['revision' => 0, 'document' => self::PLAN]);
        self::assertSame(1, $saved->json('revision'));
        Contract::holds($saved, 'put', self::C.'/plan');
        $preview = $this->api('POST', '/plan/preview', ['document' => self::PLAN]);
        self::assertCount(3, $preview->json('samples'));
        Contract::holds($preview, 'post', self::C.'/plan/preview');
        Contract::holds($this->api('GET', '/connections'), 'get', self::C.'/connections');
        Contract::holds($this->api('GET', '/running'), 'get', self::C.'/running');
        Contract::holds($this->api('GET', '/accounts'), 'get', self::C.'/accounts');

        $ad = Node::query()->where('is_ad', true)->orderBy('id')->firstOrFail();
        foreach (['', "?parent={$ad->parent_id}", '?q=trailer', '?state=broken&limit=5', "?q={$ad->external_id}"] as $query) {
            $rows = $this->api('GET', "/accounts/{$account->id}/rows{$query}");
            self::assertNotEmpty($rows->json('rows'), $query);
            Contract::holds($rows, 'get', self::C.'/accounts/{account}/rows');
        }
        Contract::holds($this->api('GET', "/nodes/{$ad->id}"), 'get', self::C.'/nodes/{node}');
        Contract::holds($this->api('POST', "/nodes/{$ad->id}/trace", ['context' => ['device' => 'tablet'], 'texts' => [['node' => $ad->id, 'slot' => 'suffix', 'text' => 'a=1']]]), 'post', self::C.'/nodes/{node}/trace');
        $found = $this->api('GET', '/search?q=Cold Ch');
        self::assertSame('Cold Chain', $found->json('nodes.0.name'));
        Contract::holds($found, 'get', self::C.'/search');

        $created = $this->api('POST', '/changes', ['account' => $account->id, 'title' => 'In line', 'existing' => 'replace', 'carrier' => 'fewest']);
        Contract::holds($created, 'post', self::C.'/changes');
        $change = $created->json('id');
        Contract::holds($this->api('GET', '/changes'), 'get', self::C.'/changes');
        Contract::holds($this->api('GET', "/changes/{$change}"), 'get', self::C.'/changes/{change}');
        Contract::holds($this->api('GET', "/changes/{$change}/writes"), 'get', self::C.'/changes/{change}/writes');
        Contract::holds($this->api('POST', "/changes/{$change}/application"), 'post', self::C.'/changes/{change}/application');
        Contract::holds($this->api('GET', '/arrivals'), 'get', self::C.'/arrivals');
        Contract::holds($this->api('GET', '/arrivals/totals'), 'get', self::C.'/arrivals/totals');
        Contract::holds($this->api('GET', '/changes/999999'), 'get', self::C.'/changes/{change}');
    }
}
