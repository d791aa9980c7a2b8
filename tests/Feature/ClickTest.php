<?php

namespace Tests\Feature;

use App\Clicks\Follower;
use App\Clicks\Gate;
use App\Models\Node;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** Test clicks: real redirects, and only where they may go. */
final class ClickTest extends TestCase
{
    /** @return iterable<string, array{string, string}> URL, why it is refused */
    public static function refused(): iterable
    {
        yield 'not on the list' => ['http://other.example/', 'where this client’s test clicks may not go'];
        yield 'only looks like one on the list' => ['http://evilallowed.example/', 'may not go'];
        yield 'loopback' => ['http://127.0.0.1/', 'is a private address'];
        yield 'a private network, RFC 1918' => ['http://10.1.2.3/', 'is a private address'];
        yield 'link-local, RFC 3927: where clouds keep their secrets' => [
            'http://169.254.169.254/latest',
            'is a private address',
        ];
        yield 'shared address space, RFC 6598' => ['http://100.64.0.1/', 'is a private address'];
        yield 'another port' => ['http://93.184.216.34:8080/', 'port 8080'];
        yield 'a sign-in' => ['http://u:p@93.184.216.34/', 'has a sign-in in it'];
        yield 'no web address' => ['file:///etc/passwd', 'is no web address'];
        yield 'a host that is not there' => ['http://nowhere.invalid/', 'can’t be found'];
        yield 'loopback, written as a number' => ['http://2130706433/', 'is a private address'];
        yield 'a stand-in on another port' => ['http://velmar.localhost:9/', 'port 9'];
    }

    #[DataProvider('refused')]
    public function test_does_not_go_where_it_may_not(string $url, string $why): void
    {
        $gate = new Gate([
            'allowed.example',
            '127.0.0.1',
            '10.1.2.3',
            '169.254.169.254',
            '100.64.0.1',
            '93.184.216.34',
            'nowhere.invalid',
            '2130706433',
            'velmar.localhost',
        ]);

        self::assertStringContainsString($why, (string) $gate->ask($url)['refused']);
    }

    public function test_goes_to_public_addresses_by_the_very_address_that_was_looked_up(): void
    {
        self::assertSame(
            ['refused' => null, 'resolve' => '93.184.216.34:443:93.184.216.34'],
            (new Gate(['93.184.216.34']))->ask('https://93.184.216.34/x'),
        );
    }

    private static function hopgate(string $to, int $times): string
    {
        $port = env('STANDINS_PORT');
        for ($i = 0; $i < $times; $i++) {
            $to = "http://hopgate.localhost:{$port}/r?to=".rawurlencode($to);
        }

        return $to;
    }

    public function test_follows_hops_one_by_one_and_at_most_ten(): void
    {
        $port = env('STANDINS_PORT');
        $follower = new Follower(new Gate(['hopgate.localhost', 'velmar.localhost']));
        $steps = $follower->follow(self::hopgate("http://velmar.localhost:{$port}/book?lang=en", 2));
        self::assertSame([302, 302, 200], array_map(static fn ($s): ?int => $s->status, $steps));
        self::assertStringStartsWith("http://velmar.localhost:{$port}/book?lang=en&hgcid=", $steps[2]->url);

        $long = $follower->follow(self::hopgate("http://velmar.localhost:{$port}/", 11));
        self::assertCount(11, $long);
        self::assertStringContainsString('More than 10 redirects', (string) $long[10]->problem);

        $away = $follower->follow(self::hopgate("http://ninefold.localhost:{$port}/", 1));
        self::assertStringContainsString('may not go', (string) $away[1]->problem);
        self::assertNull($away[1]->status);
    }

    public function test_says_apart_whether_the_hops_answered_and_whether_all_arrived(): void
    {
        $this->planned();
        $this->imported();
        $ad = Node::query()
            ->where(['is_ad' => true, 'state' => 'broken'])
            ->firstOrFail();
        $click = $this->api('POST', "/nodes/{$ad->id}/click")->assertOk();
        self::assertSame([true, false], [$click->json('answered'), $click->json('arrived')]);
        self::assertNotEmpty($click->json('faults'));

        $this->client->update(['hosts' => []]);
        $shut = $this->api('POST', "/nodes/{$ad->id}/click")->assertOk();
        self::assertSame([false, false], [$shut->json('answered'), $shut->json('arrived')]);
        self::assertStringContainsString(
            'velmar.localhost, where this client’s test clicks may not go',
            $shut->json('steps.0.problem'),
        );
    }

    /** @return iterable<string, array{string, string}> path, what is said */
    public static function awkward(): iterable
    {
        yield 'no address' => ['/redirect?to='.rawurlencode('http://['), 'redirect to what is no address'];
        yield 'no port' => [
            '/redirect?to='.rawurlencode('http://velmar.localhost:99999/'),
            'redirect to what is no address',
        ];
        yield 'no scheme' => ['/redirect?to='.rawurlencode('http:///x'), 'redirect to what is no address'];
        yield 'bytes that are no UTF-8' => ['/redirect?to=%ff%fe', 'redirect to what is no address'];
        yield 'a script' => ['/redirect?to='.rawurlencode('javascript:alert(1)'), 'is no web address'];
        yield 'a very long address' => ['/far?kb=16', 'larger than 16 KB'];
        yield 'without end' => ['/flood?mb=200', 'larger than 512 KB'];
        yield 'a long head' => ['/head?kb=24', 'The head of its answer is larger than'];
        yield 'drop by drop' => ['/drip?seconds=8', 'did not answer within 5 seconds'];
    }

    #[DataProvider('awkward')]
    public function test_a_site_that_answers_as_no_site_should_is_left_in_time(string $path, string $said): void
    {
        config(['platforms.near' => ['awkward.localhost:'.env('STANDINS_PORT')]]);
        $before = memory_get_usage();
        memory_reset_peak_usage();
        $steps = (new Follower(new Gate(['awkward.localhost'])))->follow(
            'http://awkward.localhost:'.env('STANDINS_PORT').$path,
        );

        self::assertStringContainsString($said, (string) end($steps)->problem, json_encode($steps) ?: '');
        self::assertLessThan(4 << 20, memory_get_peak_usage() - $before);
    }

    /** 40 MB of zeros in 40 KB of gzip: what is not unpacked can't fill the memory. */
    public function test_nothing_is_unpacked(): void
    {
        memory_reset_peak_usage();
        $before = memory_get_usage();
        $steps = (new Follower(new Gate(['awkward.localhost'])))->follow(
            'http://awkward.localhost:'.env('STANDINS_PORT').'/packed?mb=40',
        );

        self::assertSame([200, null], [$steps[0]->status, $steps[0]->problem]);
        self::assertLessThan(4 << 20, memory_get_peak_usage() - $before);
    }

    public function test_a_platform_that_is_down_is_said_to_be_down(): void
    {
        $this->planned();
        $this->imported();
        $this->order('down', 3);
        $this->api('POST', '/nodes/'.Node::query()->where('is_ad', true)->value('id').'/click')
            ->assertStatus(502)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'is down'));
    }
}
