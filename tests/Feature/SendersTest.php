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

    /** The same as one by one, in their order, whatever else is among the lines. */
    public function test_many_at_once_are_read_as_each_alone(): void
    {
        $account = $this->imported();
        $lines = ['ferry', 'https://nobody.example/?utm_source=x'];
        foreach (Node::query()->where(['account_id' => $account->id, 'is_ad' => true])->limit(12)->get() as $ad) {
            $trace = $this->api('POST', "/nodes/{$ad->id}/trace", ['context' => [], 'texts' => []]);
            $lines[] = $trace->json('trail')[count($trace->json('trail')) - 1]['url'];
        }
        $items = $this->api('POST', '/urls/many', ['urls' => $lines])->assertOk()->json('items');
        self::assertSame($lines, array_column($items, 'url'));
        self::assertSame([false, true], array_column(array_slice($items, 0, 2), 'isUrl'));
        $read = 0;
        foreach (array_slice($items, 1) as $item) {
            $alone = $this->senders($item['url']);
            self::assertSame([count($alone), $alone[0] ?? null], [$item['ways'], $item['sender']]);
            $read += $item['ways'] > 0 ? 1 : 0;
        }
        self::assertGreaterThan(8, $read);

        $csv = $this->api('POST', '/urls/many/file', ['urls' => [...$lines, '=1+1'], 'kind' => 'csv'])->assertOk();
        $rows = array_map(
            static fn (string $line): array => str_getcsv($line, ',', '"', ''),
            array_filter(explode("\n", str_replace("\r", '', $csv->baseResponse->getFile()->getContent()))),
        );
        self::assertCount(count($lines) + 2, $rows);
        self::assertSame(['ferry', 'no web address'], array_slice($rows[1], 0, 2));
        self::assertSame("'=1+1", end($rows)[0]); // no formula
        $this->api('POST', '/urls/many', ['urls' => array_fill(0, 10_001, 'https://a.example/')])->assertStatus(422);
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
