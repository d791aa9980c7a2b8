<?php

namespace Tests\Feature;

use App\Models\Arrival;
use App\Models\Collector;
use App\Models\Node;
use Illuminate\Support\Facades\Http;
use Tests\TestCase;
use Vestigon\Core\Channel\ChannelsReader;

/** Real clicks on the stand-in platform, through its redirects, to the collector and back to their ads. */
final class ArrivalTest extends TestCase
{
    private function click(Node $ad): string
    {
        $url =
            'http://northquay.localhost:'
            .env('STANDINS_PORT')
            .'/click?'
            .http_build_query(['ad' => $ad->external_id, 'term' => 'reefer & rail', 'match' => 'exact']);
        while (($location = Http::withoutRedirecting()->get($url)->header('Location')) !== '') {
            $url = $location;
        }
        Http::post('http://tallyroom.localhost:'.env('STANDINS_PORT').'/collect', [
            'url' => $url,
            'referrer' => '',
        ]);

        return $url;
    }

    private function read(): void
    {
        Collector::query()->firstOrCreate(
            ['client_id' => $this->client->id],
            ['site' => 'velmar', 'credentials' => 'tally-4410'],
        );
        $this->artisan('arrivals:read')->assertSuccessful();
    }

    public function test_a_click_is_matched_to_its_ad_by_the_click_id(): void
    {
        $this->imported();
        $ad = Node::query()->where('is_ad', true)->where('name', 'like', '%trailer freight A')->firstOrFail();
        $this->click($ad);
        $this->read();
        $this->read();

        $items = $this->api('GET', '/arrivals')->json('items');
        self::assertCount(1, $items);
        self::assertSame([$ad->id, 'click-id'], [$items[0]['ad']['id'], $items[0]['matchedBy']]);
        self::assertSame($items[0]['url'], implode('', array_column($items[0]['ribbon'], 'text')));
    }

    public function test_without_the_click_id_the_parameters_tell(): void
    {
        $this->imported();
        $this->planned();
        $ad = Node::query()->where('is_ad', true)->firstOrFail();
        Http::post('http://tallyroom.localhost:'.env('STANDINS_PORT').'/collect', [
            'url' => "http://velmar.localhost/x?utm_source=a&utm_content={$ad->external_id}",
            'referrer' => '',
        ]);
        $this->read();

        $item = $this->api('GET', '/arrivals')->json('items.0');
        self::assertSame([$ad->id, 'parameters'], [$item['ad']['id'], $item['matchedBy']]);
        self::assertSame(
            [['source' => 'a', 'arrivals' => 1, 'matched' => 1]],
            array_map(
                fn (array $t): array => array_intersect_key($t, ['source' => 1, 'arrivals' => 1, 'matched' => 1]),
                $this->api('GET', '/arrivals/totals')->json('items'),
            ),
        );
    }

    public function test_an_arrival_is_counted_by_the_channel_rules_of_its_day(): void
    {
        $this->client->update(['time_zone' => 'Europe/Dublin']);
        foreach (['', 'https://www.isle-radio.example/shows'] as $referrer) {
            Http::post('http://tallyroom.localhost:'.env('STANDINS_PORT').'/collect', [
                'url' => 'http://velmar.localhost/x'.($referrer === '' ? '?utm_source=a&utm_medium=cpc' : ''),
                'referrer' => $referrer,
            ]);
        }
        $this->read();
        $channels = fn (): array => array_column($this->api('GET', '/arrivals')->json('items'), 'channel');
        self::assertSame(['Referral', 'Paid search'], $channels());
        // the ladder counts them where they are shown
        $shipped = array_column(ChannelsReader::shippedDocument()['rules'], 'channel');
        $caught = [];
        foreach ($this->api('GET', '/agreements/channels/caught')->json('rules') as $i => $n) {
            $caught[$shipped[$i]] = ($caught[$shipped[$i]] ?? 0) + $n;
        }
        self::assertEquals(['Referral' => 1, 'Paid search' => 1], array_filter($caught));

        $rules = ChannelsReader::shippedDocument();
        $other = ['rules' => [['channel' => 'Ours', 'all' => []]]] + $rules;
        $day = now('Europe/Dublin');
        foreach ([$day->copy()->addDay(), $day->copy()->subDay()] as $i => $from) {
            $this->api('PUT', '/agreements/channels', [
                'revision' => $i,
                'fromDay' => $from->toDateString(),
                'document' => $i === 0 ? $other : ['rules' => [['channel' => 'All', 'all' => []]]] + $rules,
            ])->assertOk();
            self::assertSame($i === 0 ? ['Referral', 'Paid search'] : ['All', 'All'], $channels());
        }
        Arrival::query()->update(['at' => now()->subDays(3)]);
        self::assertSame(['Referral', 'Paid search'], $channels(), 'the past stays as it was counted');
    }

    public function test_the_click_is_what_the_trace_says(): void
    {
        $this->imported('NQ-2041');
        $compared = 0;
        foreach (
            [
                'Skerrow by boat A',
                'Tarnsay by boat A',
                'Halvey by boat B',
                'Orrin return €19 A',
                'Halvey from above A',
                'Sleep on the way to Tarnsay A',
                'Lunnet with your car A',
                'Day trips to Orrin C',
            ] as $name
        ) {
            $ad = Node::query()->where('name', $name)->firstOrFail();
            $landed = $this->click($ad);
            preg_match('/nqcid=(\w+)/', $landed, $id);
            $context =
                ['click.id' => $id[1], 'device' => 'desktop', 'network' => 'search']
                + (str_contains($landed, 'orrin') && str_contains($name, '€19 A')
                    ? []
                    : ['keyword.text' => 'reefer & rail', 'keyword.match' => 'exact']);
            $trail = $this->api('POST', "/nodes/{$ad->id}/trace", ['context' => $context])->json('trail');

            // Hopgate numbers its own clicks; all else is computed
            self::assertSame(preg_replace('/hgcid=H\d+/', 'hgcid=H0', $landed), end($trail)['url'], $name);
            $compared++;
        }
        self::assertSame(8, $compared);
    }

    public function test_a_collector_that_is_down_is_said_to_be_down(): void
    {
        $this->imported();
        $this->standins('/faults', ['site' => 'tallyroom', 'kind' => 'down', 'times' => 3]);
        $this->read();
        self::assertStringContainsString('Tallyroom is down', $this->api('GET', '/arrivals')->json('problem'));
    }
}
