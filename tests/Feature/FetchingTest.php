<?php

namespace Tests\Feature;

use App\Feeds\Fetching;
use App\Jobs\FetchFeed;
use App\Models\Feed;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Facades\Queue;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** Product lists that are fetched: from the stand-in shop, and from a site that answers as no site should. */
final class FetchingTest extends TestCase
{
    private string $port;

    protected function setUp(): void
    {
        parent::setUp();
        $this->port = (string) env('STANDINS_PORT');
        config(['platforms.near' => ["velmar.localhost:{$this->port}", "awkward.localhost:{$this->port}"]]);
        $this->client->update(['hosts' => ['velmar.localhost', 'awkward.localhost', 'private.example']]);
    }

    protected function tearDown(): void
    {
        File::deleteDirectory(storage_path('feeds'));
        parent::tearDown();
    }

    private function feed(string $address): Feed
    {
        return $this->client
            ->feeds()
            ->create([
                'name' => 'Crossings',
                'address' => str_replace(':PORT', ":{$this->port}", $address),
                'every_minutes' => 60,
                'secret' => str_repeat('s', 40),
                'call' => str_repeat('c', 40),
            ])
            ->setRelation('client', $this->client->fresh());
    }

    public function test_a_list_is_fetched_only_if_it_has_changed(): void
    {
        $feed = $this->feed('http://velmar.localhost:PORT/list.xml');
        self::assertTrue(app(Fetching::class)->fetch($feed));
        self::assertSame(
            [
                'form' => 'xml',
                'item' => 'item',
                'id' => 'id',
                'links' => [['column' => 'link', 'kind' => 'unpaid'], ['column' => 'ad_link', 'kind' => 'paid']],
            ],
            $feed->refresh()->reads,
        );
        self::assertSame(5000, $feed->kept?->items);
        self::assertFalse(app(Fetching::class)->fetch($feed)); // RFC 9110, 13.1.2: it has the tag that we know
        self::assertSame([1, null], [$feed->copies()->count(), $feed->refresh()->problem]);
        self::assertEqualsWithDelta(now()->addHour()->getTimestamp(), $feed->next_at?->getTimestamp(), 5);
    }

    /** @return iterable<string, array{string, string}> */
    public static function addresses(): iterable
    {
        yield 'a page, not a list' => ['http://velmar.localhost:PORT/none', 'not well-formed'];
        yield 'a host of others' => ['https://elsewhere.example/list.xml', 'none of this client’s hosts'];
        yield 'a redirect to a private address' => [
            'http://awkward.localhost:PORT/redirect?to=http://127.0.0.1/',
            'none of this client’s hosts',
        ];
        yield 'a redirect to a host of others' => [
            'http://awkward.localhost:PORT/redirect?to=https://elsewhere.example/',
            'none of this client’s hosts',
        ];
        yield 'a circle' => ['http://awkward.localhost:PORT/redirect?to=%3Fto=', 'more than 5 times'];
        yield 'no answer that makes sense' => ['http://awkward.localhost:PORT/nothing', 'answered 404'];
        yield 'a flood' => ['http://awkward.localhost:PORT/flood?mb=3', 'larger than 1 MB'];
        yield 'small on the line' => ['http://awkward.localhost:PORT/packed?mb=3', 'larger than 1 MB'];
    }

    #[DataProvider('addresses')]
    public function test_what_can_t_be_fetched_is_said_and_the_last_good_one_stays(string $address, string $says): void
    {
        $feed = $this->feed('http://velmar.localhost:PORT/list.xml');
        app(Fetching::class)->fetch($feed);
        $kept = $feed->refresh()->kept_id;
        $circle = rawurlencode("http://awkward.localhost:{$this->port}/redirect?to=/redirect");
        $to = str_replace('%3Fto=', $circle, $address);
        $feed->update(['address' => str_replace(':PORT', ":{$this->port}", $to), 'etag' => null]);
        config(['limits.feed_bytes' => 1 << 20]);
        self::assertFalse(app(Fetching::class)->fetch($feed->setRelation('client', $this->client->fresh())));
        self::assertStringContainsString($says, (string) $feed->refresh()->problem);
        self::assertSame($kept, $feed->kept_id);
    }

    public function test_those_that_are_due_are_fetched(): void
    {
        Queue::fake();
        $feed = $this->feed('http://velmar.localhost:PORT/list.xml');
        $this->artisan('feeds:fetch');
        Queue::assertNothingPushed();
        $feed->update(['next_at' => now()->subSecond()]);
        $this->artisan('feeds:fetch');
        Queue::assertPushed(FetchFeed::class, static fn (FetchFeed $job): bool => $job->feed === $feed->id);
    }

    public function test_a_shop_says_that_its_list_has_changed(): void
    {
        Queue::fake();
        $feed = $this->feed('http://velmar.localhost:PORT/list.xml');
        $this->post('/feeds/'.str_repeat('x', 40).'/again')->assertNotFound();
        Queue::assertNothingPushed();
        $this->post("/feeds/{$feed->call}/again")->assertStatus(202);
        Queue::assertPushed(FetchFeed::class, 1);
    }

    public function test_paid_and_unpaid_listings_go_out_told_apart(): void
    {
        $feed = $this->feed('http://velmar.localhost:PORT/list.xml');
        app(Fetching::class)->fetch($feed);
        $set = static fn (string $key, string $value): array => ['set' => $key, 'parts' => [['text' => $value]]];
        $draft = $this->api('POST', "/feeds/{$feed->id}/drafts", [
            'reads' => $feed->refresh()->reads,
            'rules' => [
                ['title' => 'all', 'do' => [$set('utm_source', 'tidepool')]],
                ['title' => 'paid', 'links' => ['ad_link'], 'do' => [$set('utm_medium', 'cpc')]],
                ['title' => 'unpaid', 'links' => ['link'], 'do' => [$set('utm_medium', 'referral')]],
            ],
        ])->json('id');
        $this->api('POST', "/feeds/{$feed->id}/drafts/{$draft}/application")->assertOk();
        $out = simplexml_load_file($feed->refresh()->outPath()); // read as the platform would, by PHP's own reader
        self::assertNotFalse($out);
        $media = ['link' => [], 'ad_link' => []];
        foreach ($out->channel->item as $item) {
            foreach (['link', 'ad_link'] as $column) {
                parse_str((string) parse_url((string) $item->{$column}, PHP_URL_QUERY), $query);
                $media[$column][] = $query['utm_medium'] ?? '';
            }
        }
        self::assertSame(['cpc' => 5000], array_count_values($media['ad_link']));
        self::assertEquals(['referral' => 4976, '' => 24], array_count_values($media['link']));
    }
}
