<?php

namespace Tests\Feature;

use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Node;
use App\Models\Role;
use Tests\TestCase;

/** Who may start what, and when. */
final class RolloutTest extends TestCase
{
    private Account $account;

    protected function setUp(): void
    {
        parent::setUp();
        $this->account = $this->imported();
        $this->planned();
    }

    /** @param list<int> $scope */
    private function drafted(array $scope = []): Change
    {
        return Change::query()->findOrFail(
            $this->api('POST', '/changes', [
                'account' => $this->account->id,
                'title' => 'In line',
                'existing' => 'replace',
                'carrier' => 'fewest',
                'over' => ['nodes' => $scope],
            ])
                ->assertStatus(202)
                ->json('id'),
        );
    }

    private function campaign(int $n): Node
    {
        return Node::query()->where('level', 'campaign')->orderBy('position')->skip($n)->firstOrFail();
    }

    public function test_where_the_client_wants_it_another_person_has_to_look_and_say_yes(): void
    {
        $this->client->update(['needs_approval' => true]);
        $change = $this->drafted();
        $path = "/changes/{$change->id}";
        $reviewer = $this->member(Role::Reviewer, $this->client);
        $owner = $this->member(Role::Owner, $this->client);
        $this->api('POST', "{$path}/application")
            ->assertStatus(409)
            ->assertJsonPath(
                'message',
                'Velmar Ferries wants another person’s approval before anything is written.',
            );
        $this->api('POST', "{$path}/approval", ['draft' => 1])->assertStatus(403);

        $samples = array_column($change->story['samples'], 'node');
        $this->api('POST', "{$path}/approval", ['draft' => 1], $reviewer)
            ->assertStatus(422)
            ->assertJsonPath('message', 'Open the samples first: 0 of '.count($samples).' have been.');
        $this->api('POST', "{$path}/looks", ['node' => 0, 'draft' => 1], $reviewer)->assertStatus(422);
        foreach ($samples as $node) {
            $this->api('POST', "{$path}/looks", ['node' => $node, 'draft' => 1], $reviewer)->assertStatus(204);
        }
        self::assertEqualsCanonicalizing(
            $samples,
            $this->api('GET', $path, [], $reviewer)->json('approval.opened'),
        );
        self::assertSame(
            [],
            $this->api('GET', $path, [], $owner)->json('approval.opened'),
            'each has to look for himself',
        );
        $this->api('POST', "{$path}/approval", ['draft' => 1], $reviewer)->assertOk();
        $this->api('POST', "{$path}/application")->assertStatus(202);
        self::assertSame($reviewer->id, $change->refresh()->approved_by);
    }

    public function test_a_reviewer_sends_a_change_back_and_says_why(): void
    {
        $this->client->update(['needs_approval' => true]);
        $change = $this->drafted();
        $reviewer = $this->member(Role::Reviewer, $this->client);
        $reviewer->update(['name' => 'Odile']);
        $this->api('POST', "/changes/{$change->id}/refusal", ['why' => 'no'])->assertStatus(403);
        $this->api('POST', "/changes/{$change->id}/refusal", ['why' => ' '], $reviewer)->assertStatus(422);
        $this->api(
            'POST',
            "/changes/{$change->id}/refusal",
            ['why' => 'The season is over.'],
            $reviewer,
        )->assertOk();
        self::assertSame(
            [ChangeStatus::Dropped, 'Odile sent it back: The season is over.'],
            [$change->refresh()->status, $change->problem],
        );
        $this->api('POST', "/changes/{$change->id}/refusal", ['why' => 'again'], $reviewer)->assertStatus(409);
        $this->api('POST', "/changes/{$change->id}/application")->assertStatus(409);
        $this->api('POST', "/changes/{$change->id}/again")->assertStatus(202);
        self::assertSame([ChangeStatus::Ready, null], [$change->refresh()->status, $change->problem]);
    }

    public function test_nobody_approves_what_is_his_own(): void
    {
        $this->client->update(['needs_approval' => true]);
        $change = $this->drafted();
        $this->editor->clients()->updateExistingPivot($this->client->id, ['role' => 'owner']);
        $this->api('POST', "/changes/{$change->id}/approval", ['draft' => 1])
            ->assertStatus(403)
            ->assertJsonPath('message', 'This change is your own. Another person has to approve it.');
    }

    public function test_changes_of_the_same_elements_are_seen_before_and_never_mixed(): void
    {
        $one = $this->drafted([$this->campaign(0)->id]);
        $other = $this->drafted([$this->campaign(1)->id]);
        $whole = $this->drafted();
        self::assertSame(
            [$whole->id],
            array_column($this->api('GET', "/changes/{$one->id}")->json('overlaps'), 'id'),
            'the account’s suffix counts in every campaign, another campaign’s does not',
        );

        $this->api('POST', "/changes/{$one->id}/application")->assertStatus(202);
        self::assertSame(ChangeStatus::Tried, $one->refresh()->status);
        $this->api('POST', "/changes/{$whole->id}/application")
            ->assertStatus(409)
            ->assertJsonPath(
                'message',
                "“In line” (change {$one->id}) is under way on the same elements. Finish it or take it back first.",
            );
        $this->api('POST', "/changes/{$other->id}/application")->assertStatus(202);

        foreach ([$one, $other] as $change) {
            $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
            self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
        }
        $this->api('POST', "/changes/{$whole->id}/application")
            ->assertStatus(409)
            ->assertJsonPath(
                'message',
                fn (string $m): bool => str_contains($m, 'has been applied to the same elements since'),
            );
    }

    public function test_every_account_that_is_not_in_line_is_drafted_at_once_and_gone_on_with_at_once(): void
    {
        $this->imported('HR-40', 'hearthring', 'hearth-3385');
        $this->imported('MF-7', 'mossfeed', 'moss-9047');
        $first = $this->api('POST', '/changes', [
            'every' => true,
            'title' => 'All in line',
            'existing' => 'replace',
            'carrier' => 'fewest',
        ])
            ->assertStatus(202)
            ->json('id');
        $together = $this->api('GET', "/changes/{$first}")->json('together');
        self::assertEqualsCanonicalizing(
            Account::query()->pluck('name')->all(),
            array_column($together, 'account'),
        );
        $statuses = fn (): array => array_column(
            $this->api('GET', "/changes/{$first}")->json('together'),
            'status',
            'account',
        );
        self::assertSame(['ready'], array_values(array_unique($statuses())));

        $blocked = Change::query()->findOrFail(end($together)['id']);
        $blocked->update(['plan_revision' => 0]);
        $gone = $this->api('POST', "/changes/{$first}/together/application")
            ->assertStatus(202)
            ->json();
        self::assertSame(
            [
                count($together) - 1,
                [
                    [
                        'id' => $blocked->id,
                        'account' => $blocked->account->name,
                        'why' => 'The plan has changed since this change was worked out. Work it out again.',
                    ],
                ],
            ],
            [$gone['started'], $gone['waiting']],
        );
        self::assertSame('ready', $statuses()[$blocked->account->name]);

        $tried = array_keys($statuses(), 'tried', true);
        self::assertNotEmpty($tried);
        $stays = Change::query()
            ->where(['together' => $first, 'status' => ChangeStatus::Tried])
            ->firstOrFail();
        $stays->update(['trial' => ['ok' => false, 'clicks' => []]]);
        $gone = $this->api('POST', "/changes/{$first}/together/application")->json();
        self::assertContains(
            'its trial did not go as it should',
            array_column($gone['waiting'], 'why', 'id') ?: [],
        );
        self::assertSame([ChangeStatus::Tried, count($tried) - 1], [$stays->refresh()->status, $gone['started']]);
    }

    public function test_a_part_of_the_account_alone_is_brought_in_line(): void
    {
        $campaign = $this->campaign(0);
        $change = $this->drafted([$campaign->id]);
        self::assertSame([$campaign->name], $this->api('GET', "/changes/{$change->id}")->json('scope'));
        self::assertSame($campaign->ads, $change->story['ads']);
        foreach (['trial', 'rest'] as $stage) {
            $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        }
        self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
        self::assertSame([$campaign->ads, 0], [$campaign->refresh()->proven, $this->campaign(1)->proven]);
        self::assertSame(
            422,
            $this->api('POST', '/changes', [
                'account' => $this->account->id,
                'title' => 'x',
                'existing' => 'replace',
                'carrier' => 'fewest',
                'over' => ['nodes' => [0]],
            ])->status(),
        );
    }

    public function test_what_nobody_wants_any_more_is_dropped_and_can_be_worked_out_again(): void
    {
        $change = $this->drafted();
        $path = "/changes/{$change->id}";
        $this->api('POST', "{$path}/drop")->assertOk();
        $this->api('POST', "{$path}/application")->assertStatus(409);
        $writes = $change->writes()->pluck('after')->all();
        $this->api('POST', "{$path}/again")->assertStatus(202);
        self::assertSame(
            [ChangeStatus::Ready, $writes],
            [$change->refresh()->status, $change->writes()->pluck('after')->all()],
        );

        $this->api('POST', "{$path}/application")->assertStatus(202);
        $this->api('POST', "{$path}/drop")
            ->assertStatus(409)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'can be taken back'));
        $this->api('POST', "{$path}/again")->assertStatus(409);
    }

    public function test_working_out_tells_how_far_it_is_and_ends_when_it_is_dropped(): void
    {
        $steps = [];
        Change::updated(static function (Change $c) use (&$steps): void {
            $steps[] = $c->step;
            if ($c->step === 'putting the texts together') {
                Change::query()
                    ->whereKey($c->id)
                    ->update(['status' => ChangeStatus::Dropped]);
            }
        });
        $change = $this->drafted();

        self::assertSame(
            [
                '',
                'taking a first look',
                'reading the account',
                'proving every ad as it is',
                'choosing where the plan is carried',
                'putting the texts together',
            ],
            array_values(array_unique($steps)),
        );
        self::assertSame([ChangeStatus::Dropped, 0], [$change->status, $change->writes()->count()]);
    }

    public function test_texts_chosen_by_hand_stay_chosen_when_they_are_worked_out_again(): void
    {
        $account = Node::query()->whereNull('parent_id')->firstOrFail();
        $id = $this->api('POST', '/changes', [
            'account' => $this->account->id,
            'title' => 'By hand',
            'texts' => [
                ['node' => $account->id, 'slot' => 'suffix', 'text' => 'utm_source=northquay&utm_medium=cpc'],
            ],
        ])->json('id');
        $change = Change::query()->findOrFail($id);
        self::assertGreaterThan(1, $change->writes()->count(), 'a trial on an ad comes first');
        $told = static fn (): array => $change
            ->writes()
            ->get(['node_id', 'kind', 'before', 'after', 'stage', 'position'])
            ->toArray();
        $first = $told();
        $this->api('POST', "/changes/{$id}/again")->assertStatus(202);
        self::assertSame($first, $told());
    }

    public function test_holding_and_ending_are_for_what_is_under_way(): void
    {
        $change = $this->drafted();
        $this->api('POST', "/changes/{$change->id}/pause")->assertStatus(409);
        $this->api('POST', "/changes/{$change->id}/stop")->assertStatus(409);
    }

    public function test_the_story_says_what_the_platform_will_look_at_again_and_what_comes_last(): void
    {
        $change = $this->drafted();
        $landings = $change->writes()->where('kind', 'landing')->pluck('position', 'node_id');
        self::assertGreaterThan(5, count($landings));
        self::assertSame(count($landings), $change->story['reviewed']);
        self::assertLessThan(
            $landings->min(),
            $change->writes()->where('stage', 'rest')->where('kind', '<>', 'landing')->max('position'),
            'the least risky first',
        );
    }

    public function test_rules_are_the_owners_to_change(): void
    {
        $owner = $this->member(Role::Owner, $this->client);
        $this->api('PUT', '/rules', ['needsApproval' => true, 'hosts' => []])->assertStatus(403);
        $this->api('PUT', '/rules', ['needsApproval' => true, 'hosts' => ['https://shop.example/']], $owner)
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'is no host name'));
        $this->api('PUT', '/rules', ['needsApproval' => true, 'hosts' => ['shop.example']], $owner)
            ->assertOk()
            ->assertJson(['needsApproval' => true, 'hosts' => ['shop.example']]);
    }
}
