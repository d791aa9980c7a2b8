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

    /** @return array<string, mixed> the plan, with another source for one campaign */
    private static function varied(string $campaign): array
    {
        $parameters = self::PLAN['parameters'];
        $parameters[0]['parts'] = [['text' => 'reef']];
        $where = [['field' => 'campaign.id', 'is' => [$campaign]]];

        return [
            ...self::PLAN,
            'variants' => [
                ['id' => 'reef', 'title' => 'The reef', 'for' => ['where' => $where], 'parameters' => $parameters],
            ],
        ];
    }

    public function test_a_variant_counts_for_its_campaigns_and_trace_says_why(): void
    {
        $account = $this->imported();
        $campaigns = Node::query()
            ->where(['account_id' => $account->id, 'depth' => 1])
            ->orderBy('position')
            ->get();
        $plan = self::varied($campaigns[0]->external_id);
        $preview = fn (string $variant): array => $this->api('POST', '/plan/preview', [
            'document' => $plan,
            'variant' => $variant,
        ])
            ->assertOk()
            ->json();
        $all = (int) Node::query()->where('account_id', $account->id)->whereNull('parent_id')->value('ads');
        self::assertSame(
            ['' => $all - $campaigns[0]->ads, 'reef' => $campaigns[0]->ads],
            $preview('reef')['counts']['ads'],
        );
        self::assertSame(['reef'], array_column([$preview('reef')['samples'][0]['pairs'][0]], 'value'));
        self::assertSame(['northquay'], array_column([$preview('')['samples'][0]['pairs'][0]], 'value'));

        $this->api('PUT', '/plan', ['revision' => 0, 'document' => $plan])->assertOk();
        $trace = fn (Node $campaign): array => $this->api('POST', '/nodes/'.$this->adOf($campaign)->id.'/trace')
            ->assertOk()
            ->json();
        self::assertSame(
            ['title' => 'The reef', 'for' => "campaign.id is {$campaigns[0]->external_id}"],
            $trace($campaigns[0])['variant'],
        );
        self::assertNull($trace($campaigns[1])['variant']);
        $wanted = static fn (array $trace): array => array_values(
            array_filter(
                array_column($trace['arrival'], 'expected', 'key'),
                static fn (?string $value, string $key): bool => $key === 'utm_source',
                ARRAY_FILTER_USE_BOTH,
            ),
        );
        self::assertSame(['reef'], $wanted($trace($campaigns[0])));
    }

    public function test_a_variant_goes_out_in_a_sheet_and_comes_in_again(): void
    {
        $this->api('PUT', '/plan', ['revision' => 0, 'document' => self::varied('71')])->assertOk();
        $sheet = $this->api('GET', '/plan/file?as=csv')->assertOk();
        $content = (string) file_get_contents($sheet->baseResponse->getFile()->getPathname());
        self::assertStringContainsString('The reef', $content);
        $back = $this->api('POST', '/plan/file', [
            'name' => 'plan.csv',
            'content' => base64_encode(str_replace('reef,', 'shoal,', $content)),
        ])
            ->assertOk()
            ->json('document');

        self::assertSame('shoal', $back['variants'][0]['parameters'][0]['parts'][0]['text']);
        self::assertSame('northquay', $back['parameters'][0]['parts'][0]['text']);
    }

    private function adOf(Node $node): Node
    {
        $ad = $node;
        while (! $ad->is_ad) {
            $ad = Node::query()->where('parent_id', $ad->id)->orderBy('position')->firstOrFail();
        }

        return $ad;
    }
}
