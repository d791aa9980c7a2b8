<?php

namespace Tests\Feature;

use App\Dialects\DialectText;
use App\Models\Node;
use Tests\TestCase;

/** What helps to write a platform: consequences before it is kept, rules from a click, fields from its help. */
final class LearnTest extends TestCase
{
    /** A platform of one's own, with an account on it whose ads are proven. */
    private function ninth(): array
    {
        $document = json_decode((string) file_get_contents(base_path('core/dialects/mossfeed.json')), true);
        $document = ['id' => 'ninth', 'title' => 'Ninth'] + $document;
        $this->api('PUT', '/platforms', ['text' => json_encode($document), 'revision' => 0])->assertOk();

        return $document;
    }

    public function test_what_a_revision_would_break_is_told_before_it_is_kept(): void
    {
        $document = $this->ninth();
        $account = $this->imported('MF-7', 'mossfeed', 'moss-9047');
        $account->update(['dialect' => 'ninth']);
        $this->client->plans()->create([
            'revision' => 1,
            'document' => ['clickId' => 'optional', 'parameters' => [
                ['key' => 'utm_content', 'parts' => [['field' => 'ad.id']], 'required' => true],
            ]] + self::PLAN,
            'user_id' => $this->editor->id,
        ]);
        $campaigns = Node::query()->where(['account_id' => $account->id, 'level' => 'campaign'])->get();
        foreach ($campaigns as $campaign) {
            \App\Accounts\LiveTexts::set($campaign->id, 'suffix', '', 'utm_content=~item~');
        }
        $this->app->make(\App\Accounts\Proof::class)->refresh($account);
        $proven = Node::query()->where(['is_ad' => true, 'state' => 'proven'])->count();
        self::assertGreaterThan(3, $proven);

        $same = $this->weigh($document);
        self::assertSame([$proven, 0, 0], [$same['proven'], $same['breaks'], $same['mends']]);
        $document['tokens'][3]['field'] = 'ad.name';
        $broken = $this->weigh($document);
        self::assertSame([0, $proven, 0], [$broken['proven'], $broken['breaks'], $broken['mends']]);
        self::assertCount(5, $broken['samples']);
        self::assertStringContainsString('utm_content', $broken['samples'][0]['reason']);
        self::assertSame(
            $proven,
            Node::query()->where(['is_ad' => true, 'state' => 'proven'])->count(),
            'nothing is kept by looking',
        );
    }

    /** @return array<string, mixed> */
    private function weigh(array $document): array
    {
        return $this->api('POST', '/platforms/consequences', ['text' => DialectText::write($document, 'yaml')])
            ->assertOk()
            ->json('accounts.0');
    }

    public function test_what_is_wrong_with_the_document_is_told_in_place_of_an_answer(): void
    {
        $this->api('POST', '/platforms/consequences', ['text' => 'format: x'])
            ->assertOk()
            ->assertJsonPath('accounts', [])
            ->assertJsonPath('problems.0.message', fn (string $m): bool => $m !== '');
        $nodes = [['level' => 'account']];
        $this->api('POST', '/platforms/explanation', ['text' => 'format: x', 'nodes' => $nodes, 'url' => 'https://a'])
            ->assertOk()
            ->assertJsonPath('changes', null);
        $text = DialectText::write($this->ninth(), 'json');
        $this->api('POST', '/platforms/explanation', [
            'text' => $text,
            'nodes' => [['level' => 'nowhere']],
            'url' => 'https://a',
        ])->assertStatus(422);
    }
}
