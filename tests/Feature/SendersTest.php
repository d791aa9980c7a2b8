<?php

namespace Tests\Feature;

use App\Accounts\LiveTexts;
use App\Models\Node;
use Tests\TestCase;

/** Whose click a landing URL can be. */
final class SendersTest extends TestCase
{
    /** @return list<array<string, mixed>> */
    private function senders(string $url): array
    {
        return $this->api('POST', '/urls/senders', ['url' => $url])->assertOk()->json('items');
    }

    public function test_what_an_ad_sends_is_read_back_to_it_and_to_the_click(): void
    {
        $account = $this->imported();
        $read = 0;
        foreach (Node::query()->where(['account_id' => $account->id, 'is_ad' => true])->limit(12)->get() as $ad) {
            $trace = $this->api('POST', "/nodes/{$ad->id}/trace", ['context' => [], 'texts' => []]);
            $landed = $trace->json('trail')[count($trace->json('trail')) - 1]['url'];
            $found = $this->senders($landed);
            self::assertContains($ad->id, array_column($found, 'node'), $landed);
            $read += (int) (($found[0]['values']['click.id'] ?? null) === $trace->json('context')['click.id']);
        }
        self::assertGreaterThan(0, $read);
    }

    public function test_a_text_that_stands_there_no_more_still_tells(): void
    {
        $account = $this->imported();
        $ad = Node::query()->where(['account_id' => $account->id, 'is_ad' => true])->firstOrFail();
        $page = 'https://v.example/'.$ad->id;
        LiveTexts::set($ad->id, 'landing', '', "{$page}?was=1");
        $this->travel(2)->days();
        LiveTexts::set($ad->id, 'landing', '', "{$page}?is=1");

        $trace = $this->api('POST', "/nodes/{$ad->id}/trace", ['context' => [], 'texts' => []]);
        $now = $trace->json('trail')[count($trace->json('trail')) - 1]['url'];
        $was = str_replace('?is=1', '?was=1', $now);
        self::assertStringContainsString('?is=1', $now);
        self::assertNull($this->senders($now)[0]['until']);
        self::assertSame([$ad->id], array_column($this->senders($was), 'node'));
        self::assertNotNull($this->senders($was)[0]['until']);
        self::assertSame([], $this->senders("{$now}&more=1"));
        $this->api('POST', '/urls/senders', ['url' => 'ferry'])->assertStatus(422);
    }
}
