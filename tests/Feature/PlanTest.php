<?php

namespace Tests\Feature;

use App\Models\Node;
use Tests\TestCase;

final class PlanTest extends TestCase
{
    public function test_a_broken_plan_is_refused_with_the_place(): void
    {
        $document = self::PLAN;
        $document['parameters'][2]['parts'] = [['field' => 'campaign']];
        $this->api('PUT', '/plan', ['revision' => 0, 'document' => $document])
            ->assertStatus(422)
            ->assertJsonPath('message', 'parameters[2].parts[0].field: there is no field "campaign"');
        self::assertNull($this->client->plan());
    }

    public function test_two_people_saving_do_not_overwrite_each_other(): void
    {
        $this->api('PUT', '/plan', ['revision' => 0, 'document' => self::PLAN])->assertOk();
        $this->api('PUT', '/plan', ['revision' => 0, 'document' => self::PLAN])
            ->assertStatus(409)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'Somebody else has saved'));
        self::assertSame(1, $this->client->plans()->count());
    }

    public function test_saving_proves_every_ad_and_counts_upwards(): void
    {
        $account = $this->imported();
        $this->api('PUT', '/plan', ['revision' => 0, 'document' => self::PLAN])->assertOk();
        $root = Node::query()->where('account_id', $account->id)->whereNull('parent_id')->firstOrFail();
        $states = Node::query()
            ->where('account_id', $account->id)
            ->where('is_ad', true)
            ->toBase()
            ->selectRaw('state, count(*) n')
            ->groupBy('state')
            ->pluck('n', 'state')
            ->all();

        self::assertSame(
            ['broken' => $root->broken, 'untracked' => $root->untracked],
            array_map(intval(...), $states),
        );
        self::assertSame($root->ads, array_sum($states));
        self::assertGreaterThan(0, $root->broken);
    }

    public function test_an_unclosed_token_is_shown_as_what_it_sends(): void
    {
        $this->imported();
        $this->planned();
        $ad = Node::query()->where('is_ad', true)->firstOrFail();
        $trace = $this->api('POST', "/nodes/{$ad->id}/trace", [
            'texts' => [['node' => $ad->id, 'slot' => 'suffix', 'text' => 'utm_campaign={campaign.id']],
        ])->assertOk();

        $arrival = collect($trace->json('arrival'))->firstWhere('key', 'utm_campaign');
        self::assertSame(['{campaign.id', 'wrong'], [$arrival['value'], $arrival['verdict']]);
        self::assertStringContainsString(
            'utm_campaign arrives as “{campaign.id”',
            implode(' ', array_column($trace->json('verdict.faults'), 'reason')),
        );
    }
}
