<?php

namespace Tests\Feature;

use App\Accounts\Branches;
use App\Models\Node;
use Tests\TestCase;

/** Names that follow patterns: put together, held against them, and their parts as fields of the plan. */
final class NamesTest extends TestCase
{
    private const CAMPAIGNS = [
        'format' => 'vestigon.naming/1',
        'separator' => ' | ',
        'for' => ['levels' => ['campaign']],
        'parts' => [['name' => 'market', 'words' => ['Halvey', 'Skerrow']], ['name' => 'aim']],
    ];

    private function agree(): void
    {
        $this->api('PUT', '/agreements/names', ['revision' => 0, 'document' => ['patterns' => [self::CAMPAIGNS]]])
            ->assertOk();
    }

    public function test_a_name_is_put_together_or_told_what_is_wrong(): void
    {
        $composed = $this->api('POST', '/agreements/names/composition', [
            'document' => self::CAMPAIGNS,
            'rows' => [['market' => 'Halvey', 'aim' => 'Brand'], ['market' => 'Mars', 'aim' => 'x']],
        ])->assertOk()->json('items');

        self::assertSame(['name' => 'Halvey | Brand', 'trouble' => []], $composed[0]);
        self::assertSame(
            [['part' => 'market', 'why' => '“Mars” is not one of Halvey, Skerrow']],
            $composed[1]['trouble'],
        );
    }

    public function test_a_sheet_to_rename_by_has_every_name_that_is_off(): void
    {
        $account = $this->imported();
        $this->agree();
        $campaigns = Node::query()->where(['account_id' => $account->id, 'level' => 'campaign'])->orderBy('id')->get();
        foreach ($campaigns as $i => $campaign) {
            $campaign->update(['name' => $i === 0 ? '=Halvey - Brand' : 'skerrow - Foot']);
        }
        $sheet = $this->api('GET', "/accounts/{$account->id}/names/file?as=csv")->assertOk()->streamedContent();
        $rows = array_map(
            static fn (string $l): array => str_getcsv($l, escape: ''),
            explode("\n", trim(str_replace("\r", '', $sheet))),
        );

        self::assertCount(1 + count($campaigns), $rows);
        self::assertSame(['Campaign', $campaigns[1]->external_id, 'skerrow - Foot', 'Skerrow | Foot'], array_slice(
            $rows[2],
            0,
            4,
        ));
        self::assertStringStartsWith("'=", $rows[1][2], 'no cell is a formula');
        $this->api('GET', "/accounts/{$account->id}/names/file")->assertStatus(422);
    }

    public function test_the_parts_of_a_name_stand_beside_it_and_what_the_ads_below_send(): void
    {
        $this->planned();
        $account = $this->imported();
        $this->agree();
        $campaign = Node::query()->where(['account_id' => $account->id, 'level' => 'campaign'])->firstOrFail();
        $campaign->update(['name' => 'Halvey | Brand']);

        $rows = $this->api('GET', "/accounts/{$account->id}/rows")->assertOk();
        self::assertSame(['market', 'aim'], $rows['parts']);
        $row = array_column($rows['rows'], null, 'id')[$campaign->id];
        self::assertSame(['market' => 'Halvey', 'aim' => 'Brand'], $row['parts']);

        $sends = $this->api('GET', "/accounts/{$account->id}/sends?nodes[]={$campaign->id}")->assertOk()['items'][0];
        $values = [];
        $ads = 0;
        foreach (Branches::below($account, [$campaign->id]) as $parent) {
            foreach ($this->api('GET', "/accounts/{$account->id}/rows?parent={$parent}&limit=200")['rows'] as $ad) {
                if ($ad['isAd']) {
                    $ads++;
                    $values[$ad['arrival']['utm_source'] ?? null] = true;
                }
            }
        }
        self::assertGreaterThan(0, $ads);
        self::assertSame($ads, $sends['ads']);
        self::assertSame(
            count(array_filter(array_keys($values), static fn (string $v): bool => $v !== '')),
            $sends['keys']['utm_source']['count'],
        );
    }

    public function test_names_off_their_pattern_are_told_with_the_one_that_is_meant(): void
    {
        $account = $this->imported();
        $names = ['Halvey | Brand', 'skerrow - Foot', 'Elsewhere'];
        $campaigns = Node::query()->where(['account_id' => $account->id, 'level' => 'campaign'])->orderBy('id')->get();
        foreach ($campaigns as $i => $campaign) {
            $campaign->update(['name' => $names[$i % 3]]);
        }
        $read = $this->api('POST', '/agreements/names/reading', [
            'document' => ['patterns' => [self::CAMPAIGNS]],
            'account' => $account->id,
        ])->assertOk();

        self::assertSame(count($campaigns), $read['fits'] + $read['off']);
        self::assertSame($account->nodes()->count() - count($campaigns), $read['free']);
        $told = array_column($read['items'], null, 'name');
        self::assertSame('Skerrow | Foot', $told['skerrow - Foot']['proposed']);
        self::assertSame([0, 14], [$told['skerrow - Foot']['at'], $told['skerrow - Foot']['length']]);
        self::assertNull($told['Elsewhere']['proposed']);
    }

    public function test_names_that_are_agreed_on_are_held_against_every_account(): void
    {
        $this->planned();
        $account = $this->imported();
        $this->agree();

        $found = $account->findings()->where('code', 'name-off-pattern')->get();
        self::assertNotEmpty($found);
        self::assertStringContainsString('is off its pattern', $found[0]->reason);
    }

    public function test_parts_of_names_are_fields_of_the_plan_and_are_brought_in_line(): void
    {
        $this->planned();
        $account = $this->imported();
        Node::query()
            ->where(['account_id' => $account->id, 'level' => 'campaign'])
            ->update(['name' => 'Halvey | Brand']);
        $this->agree();
        self::assertContains('campaign.part.market', $this->api('GET', '/plan')->json('fields'));

        $plan = $this->client->plan();
        $document = $plan->document ?? [];
        $document['parameters'][] = ['key' => 'market', 'parts' => [['field' => 'campaign.part.market']]];
        $this->api('PUT', '/plan', ['revision' => $plan?->revision, 'document' => $document])->assertOk();
        $change = $this->inLine($account);

        self::assertContains('Halvey', $change->writes()->where('kind', 'custom')->pluck('after')->all());
        self::assertTrue($change->writes()->where('after', 'like', '%market={%')->exists(), 'a text asks for it');
    }

    public function test_a_pattern_that_can_t_be_used_says_where(): void
    {
        $bad = ['parts' => [['name' => 'two words']]] + self::CAMPAIGNS;
        $this->api('PUT', '/agreements/names', ['revision' => 0, 'document' => ['patterns' => [$bad]]])
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'patterns[0].parts[0].name'));
    }
}
