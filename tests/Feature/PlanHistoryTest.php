<?php

namespace Tests\Feature;

use App\Accounts\WhatIf;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;
use Vestigon\Core\Account\Account as CoreAccount;
use Vestigon\Core\Proof\Survey;

/** What was agreed before, what is said otherwise now, what that would do; and the plan as a file. */
final class PlanHistoryTest extends TestCase
{
    /** @return array<string, mixed> the saved plan with another medium */
    private function other(): array
    {
        $document = $this->client->plan()?->document ?? [];
        foreach ($document['parameters'] as $i => $parameter) {
            if ($parameter['key'] === 'utm_medium') {
                $document['parameters'][$i]['parts'] = [['text' => 'paid-search']];
            }
        }

        return $document;
    }

    private function save(array $document): void
    {
        $revision = $this->client->plan()->revision ?? 0;
        $this->api('PUT', '/plan', ['revision' => $revision, 'document' => $document])->assertOk();
    }

    public function test_every_revision_stays_and_can_be_brought_back(): void
    {
        $this->planned();
        $first = $this->client->plan()?->document;
        $this->save($this->other());

        $revisions = $this->api('GET', '/plan/revisions')->assertOk()->json('items');
        self::assertSame([2, 1], array_column($revisions, 'revision'));
        self::assertSame($this->editor->name, $revisions[0]['by']);
        self::assertEquals($first, $this->api('GET', '/plan/revisions/1')->json('document'));
        $this->api('GET', '/plan/revisions/7')->assertStatus(404);
    }

    public function test_a_plan_counts_from_its_day_on_and_accounts_are_proven_then(): void
    {
        $this->planned();
        $account = $this->imported();
        $proven = $account->nodes()->where('state', 'proven')->count();
        $day = now($this->client->time_zone)->addDays(3)->toDateString();
        $saved = $this->api('PUT', '/plan', ['revision' => 1, 'document' => $this->other(), 'fromDay' => $day])
            ->assertOk();
        self::assertSame([2, 1, $day], [$saved['revision'], $saved['counts'], $saved['fromDay']]);
        self::assertSame(1, $this->client->plan()?->revision);
        $this->artisan('agreements:begin')->assertSuccessful();
        self::assertSame(1, $account->refresh()->plan_revision);
        self::assertSame($proven, $account->nodes()->where('state', 'proven')->count());

        $this->travel(4)->days();
        self::assertSame(2, $this->client->plan()->revision);
        $this->artisan('agreements:begin')->assertSuccessful();
        self::assertSame(2, $account->refresh()->plan_revision);
        self::assertTrue($this->client->plan()->begun);
        $this->travelBack();
        $this->api('PUT', '/plan', ['revision' => 2, 'document' => $this->other(), 'fromDay' => 'soon'])
            ->assertStatus(422);
    }

    public function test_what_a_plan_says_otherwise_is_told_before_it_is_saved(): void
    {
        $this->planned();
        $told = $this->api('POST', '/plan/differences', ['document' => $this->other()])->assertOk();
        self::assertSame(
            [['utm_medium', 'says', 'cpc', 'paid-search']],
            array_map(
                static fn (array $d): array => [$d['key'], $d['place'], $d['before'], $d['after']],
                $told['items'],
            ),
        );
        self::assertSame(1, $told['revision']);
    }

    public function test_what_a_plan_would_do_is_told_before_it_is_saved(): void
    {
        $this->planned();
        $account = $this->imported();
        $account->nodes()->where('is_ad', true)->limit(3)->update(['state' => 'proven']);
        $none = ['parameters' => [['key' => 'nobody_has_it', 'parts' => [['text' => 'x']], 'required' => true]]];
        $would = $this->api('POST', '/plan/consequences', [
            'document' => $none + ($this->client->plan()?->document ?? []),
            'account' => $account->id,
        ])->assertOk();

        self::assertSame([0, 3, 0], [$would['proven'], $would['breaks'], $would['mends']]);
        self::assertSame($account->name, $would['account']['name']);
        self::assertStringContainsString('nobody_has_it', $would['samples'][0]['reason']);
        self::assertSame(3, $account->nodes()->where('state', 'proven')->count(), 'nothing is kept');
    }

    public function test_a_large_account_is_gone_through_part_by_part(): void
    {
        $this->planned();
        $account = $this->imported();
        $plan = $this->client->plan()?->read();
        $surveyed = static fn (CoreAccount $some): Survey => new Survey($some, $plan);
        $whole = WhatIf::of($account, $surveyed);
        self::assertGreaterThan(200, $whole['looked']);
        self::assertNull($whole['next']);
        $sums = ['looked' => 0, 'proven' => 0, 'breaks' => 0, 'mends' => 0];
        for ($above = 0, $times = 0; $above !== null; $times++) {
            $part = WhatIf::of($account, $surveyed, $above, most: 100);
            foreach ($sums as $what => $n) {
                $sums[$what] = $n + $part[$what];
            }
            $above = $part['next'];
        }

        self::assertSame(intdiv($whole['looked'] + 99, 100), $times);
        self::assertSame(array_intersect_key($whole, $sums), $sums);
    }

    /** @return iterable<string, array{string}> */
    public static function kinds(): iterable
    {
        foreach (['json', 'yaml', 'csv', 'xlsx', 'ods'] as $kind) {
            yield $kind => [$kind];
        }
    }

    #[DataProvider('kinds')]
    public function test_a_plan_goes_out_as_a_file_and_comes_in_the_same(string $kind): void
    {
        $this->planned();
        $this->imported();
        $file = $this->api('GET', "/plan/file?as={$kind}")->assertOk();
        $content = $file->baseResponse instanceof \Symfony\Component\HttpFoundation\BinaryFileResponse
            ? $file->streamedContent()
            : (string) $file->getContent();
        $read = $this->api('POST', '/plan/file', ['name' => "plan.{$kind}", 'content' => base64_encode($content)])
            ->assertOk()
            ->json('document');

        $told = $this->api('POST', '/plan/differences', ['document' => $read])->assertOk();
        self::assertSame([], $told['items']);
        self::assertSame(1, $this->client->plan()?->revision, 'nothing is saved by it');
    }

    public function test_a_file_that_is_no_plan_says_why(): void
    {
        $this->planned();
        $bring = fn (string $name, string $content): array => $this->api('POST', '/plan/file', [
            'name' => $name,
            'content' => base64_encode($content),
        ])
            ->assertStatus(422)
            ->json();
        self::assertStringContainsString('not JSON', $bring('plan.json', '{"a": ')['message']);
        self::assertStringContainsString('not YAML', $bring('plan.yaml', "a: [1\nb")['message']);
        self::assertStringContainsString('“says”', $bring('plan.csv', "key,what\na,b\n")['message']);
        self::assertStringContainsString('no field', $bring('plan.csv', "key,says\na,<nothing.at>\n")['message']);
    }
}
