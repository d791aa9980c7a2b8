<?php

namespace Tests\Feature;

use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Node;
use App\Models\Role;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** Many texts at once: looked at first, then a change like any other. */
final class EditsTest extends TestCase
{
    private Account $account;

    protected function setUp(): void
    {
        parent::setUp();
        $this->planned();
        $this->account = $this->imported();
    }

    /**
     * @param array<string, mixed> $what
     * @param array<string, mixed> $over
     */
    private function edit(array $what, array $over = [], ?string $title = null): TestResponse
    {
        return $this->api(
            'POST',
            "/accounts/{$this->account->id}/edits",
            ['over' => (object) $over, 'what' => $what] + ($title === null ? [] : ['title' => $title]),
        );
    }

    public function test_find_and_replace_is_looked_at_first_and_then_drafted(): void
    {
        $what = ['kind' => 'replace', 'slots' => ['landing'], 'find' => 'lang=en', 'with' => 'lang=en-GB'];
        $seen = $this->edit($what)->assertOk();
        self::assertGreaterThan(50, $seen->json('total'));
        self::assertStringContainsString('lang=en-GB', $seen->json('items.0.after'));
        self::assertSame(0, Change::query()->count());

        $id = $this->edit($what, [], 'British English')->assertOk()->json('change');
        $change = Change::query()->findOrFail($id);
        self::assertSame(
            [ChangeStatus::Ready, $seen->json('total')],
            [$change->status, $change->writes()->count()],
        );
    }

    public function test_a_pattern_works_and_a_bad_one_is_explained(): void
    {
        self::assertStringContainsString(
            '/r/',
            $this->edit([
                'kind' => 'replace',
                'slots' => ['landing'],
                'find' => '/(skerrow)/(\w+)',
                'with' => '/r/$2',
                'pattern' => true,
            ])->json('items.0.after'),
        );
        $this->edit(['kind' => 'replace', 'slots' => ['landing'], 'find' => '(', 'with' => '', 'pattern' => true])
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'missing closing parenthesis'));
        $this->edit(['kind' => 'replace', 'slots' => [], 'find' => 'a', 'with' => ''])
            ->assertStatus(422)
            ->assertJsonPath('message', 'Choose at least one slot.');
    }

    public function test_a_parameter_is_set_where_the_level_has_the_slot_and_taken_out_everywhere(): void
    {
        $campaign = Node::query()->where('level', 'campaign')->orderBy('position')->firstOrFail();
        $onCampaign = $this->edit(
            ['kind' => 'set', 'slots' => ['suffix'], 'key' => 'aff', 'value' => '7'],
            ['nodes' => [$campaign->id]],
        );
        self::assertSame([1, $campaign->id], [$onCampaign->json('total'), $onCampaign->json('items.0.node')]);
        $onAds = $this->edit(
            ['kind' => 'set', 'slots' => ['landing'], 'key' => 'aff', 'value' => '7'],
            ['nodes' => [$campaign->id]],
        );
        self::assertSame($campaign->ads, $onAds->json('total'), 'campaigns have no landing URL: its ads do');

        $broken = $this->edit(
            ['kind' => 'remove', 'slots' => ['landing'], 'key' => 'lang'],
            ['state' => 'broken'],
        );
        self::assertStringNotContainsString('lang=', $broken->json('items.0.after'));
        self::assertSame(Node::query()->where('state', 'broken')->count(), $broken->json('looked'));
    }

    public function test_tracking_is_copied_from_one_campaign_to_others(): void
    {
        [$from, $to] = Node::query()->where('level', 'campaign')->orderBy('position')->limit(2)->get()->all();
        DB::table('texts')->insert([
            'node_id' => $from->id,
            'kind' => 'suffix',
            'name' => '',
            'text' => 'a=1',
            'since' => now(),
        ]);
        $ad = Node::query()->where('is_ad', true)->value('id');
        $seen = $this->edit(
            ['kind' => 'copy', 'from' => $from->id, 'slots' => ['suffix', 'template']],
            ['nodes' => [$from->id, $to->id, $ad]],
        );
        self::assertSame(
            [[$to->id, 'a=1']],
            array_map(static fn (array $i): array => [$i['node'], $i['after']], $seen->json('items')),
        );
        self::assertSame(
            ["1 of the chosen elements are not on the level of {$from->name}; they are left alone."],
            $seen->json('problems'),
        );
    }

    public function test_cells_of_a_spreadsheet_are_pasted(): void
    {
        [$a, $b] = Node::query()->where('is_ad', true)->orderBy('position')->limit(2)->get()->all();
        $cells = "number\tname\tsuffix\tmy.c\twhatever\r\n{$a->external_id}\tx\tref=1\tvalue\tz\r\n"
            ."{$b->external_id}\t\t\"say \"\"hi\"\"\"\t(none)\t\r\n999999\t\ta=1\t\t\r\n";
        $seen = $this->edit(['kind' => 'paste', 'cells' => $cells]);
        self::assertSame(
            [
                [$a->id, 'suffix', '', 'ref=1'],
                [$a->id, 'custom', 'c', 'value'],
                [$b->id, 'suffix', '', 'say "hi"'],
            ],
            array_map(
                static fn (array $i): array => [$i['node'], $i['kind'], $i['custom'], $i['after']],
                $seen->json('items'),
            ),
        );
        self::assertSame(
            [
                'The column “whatever” is left out: it is none of number, template, suffix, landing, my.…',
                "999999 is not in {$this->account->name}; its line is left out.",
            ],
            $seen->json('problems'),
        );
        $this->edit(['kind' => 'paste', 'cells' => "name\tsuffix\nx\ty"])
            ->assertStatus(422)
            ->assertJsonPath('message', 'No column is called “number”: it says which element a line is about.');
    }

    public function test_a_filter_is_kept_and_a_change_drafted_for_what_it_finds(): void
    {
        $campaign = Node::query()
            ->where('level', 'campaign')
            ->where('broken', '>', 0)
            ->orderBy('position')
            ->firstOrFail();
        $filter = $this->api('POST', '/filters', [
            'name' => 'Broken freight',
            'account' => $this->account->id,
            'filter' => ['nodes' => [$campaign->id], 'state' => 'broken'],
        ])->assertStatus(201);
        self::assertSame('Broken freight', $this->api('GET', '/filters')->json('items.0.name'));
        $change = Change::query()->findOrFail(
            $this->api('POST', '/changes', [
                'account' => $this->account->id,
                'title' => 'x',
                'existing' => 'replace',
                'carrier' => 'fewest',
                'filter' => $filter->json('id'),
            ])
                ->assertStatus(202)
                ->json('id'),
        );
        self::assertSame(
            Node::query()
                ->where('state', 'broken')
                ->whereIn('parent_id', Node::query()->where('parent_id', $campaign->id)->select('id'))
                ->count(),
            $change->story['ads'],
        );
        $this->api('DELETE', "/filters/{$filter->json('id')}")->assertStatus(204);
        self::assertSame([], $this->api('GET', '/filters')->json('items'));
    }

    public function test_who_may_not_edit_may_look_and_not_draft(): void
    {
        $viewer = $this->member(Role::Viewer, $this->client);
        $body = ['over' => (object) [], 'what' => ['kind' => 'remove', 'slots' => ['landing'], 'key' => 'lang']];
        $this->api('POST', "/accounts/{$this->account->id}/edits", $body, $viewer)->assertOk();
        $this->api(
            'POST',
            "/accounts/{$this->account->id}/edits",
            $body + ['title' => 'x'],
            $viewer,
        )->assertStatus(403);
    }
}
