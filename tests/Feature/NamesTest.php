<?php

namespace Tests\Feature;

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
        $compose = fn (array $values): array => (array) $this->api('POST', '/agreements/names/composition', [
            'document' => self::CAMPAIGNS,
            'values' => $values,
        ])->assertOk()->json();

        self::assertSame(
            ['name' => 'Halvey | Brand', 'trouble' => []],
            $compose(['market' => 'Halvey', 'aim' => 'Brand']),
        );
        self::assertSame(
            [['part' => 'market', 'why' => '“Mars” is not one of Halvey, Skerrow']],
            $compose(['market' => 'Mars', 'aim' => 'x'])['trouble'],
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
