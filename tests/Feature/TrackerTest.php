<?php

namespace Tests\Feature;

use App\Accounts\Trees;
use App\Jobs\ProveAccount;
use App\Models\Node;
use Illuminate\Support\Facades\Queue;
use Tests\TestCase;

/** Click trackers of the client's own: told, tried, suggested by texts, and counted in every proof. */
final class TrackerTest extends TestCase
{
    /** @return array<string, mixed> */
    private static function told(string $host, int $revision = 0): array
    {
        return [
            'host' => $host,
            'parameter' => 'to',
            'forwards' => true,
            'adds' => [['key' => 'gcid', 'text' => 'G 1']],
            'revision' => $revision,
        ];
    }

    public function test_a_tracker_that_is_told_of_is_passed_by_every_click(): void
    {
        $this->client->trackers()->delete();
        $account = $this->imported();
        $ad = Node::query()->where('is_ad', true)->firstOrFail();
        $tried = static fn (string $host): array => [
            'texts' => [
                ['node' => $ad->id, 'slot' => 'template', 'text' => "https://{$host}/r?to={landing.enc}&k=1"],
                ['node' => $ad->id, 'slot' => 'landing', 'text' => 'https://velmar.localhost/a?b=2'],
            ],
        ];
        $trail = fn (string $host): array => array_column(
            $this->api('POST', "/nodes/{$ad->id}/trace", $tried($host))->assertOk()->json('trail'),
            'stop',
        );
        self::assertSame(['landed'], $trail('go.other.example'), 'an unknown host is where the click lands');
        $this->api('POST', '/trackers', self::told('go.other.example'))->assertStatus(201);
        self::assertSame(['hop', 'landed'], $trail('go.other.example'));
        self::assertSame(['landed'], $trail('go.else.example'));
        self::assertCount(1, Trees::hops($account));
    }

    public function test_all_accounts_are_proven_anew_and_of_two_who_save_the_second_is_told(): void
    {
        $this->imported();
        Queue::fake();
        $tracker = $this->api('POST', '/trackers', self::told('go.other.example'))->assertStatus(201);
        Queue::assertPushed(ProveAccount::class, 1);
        $at = "/trackers/{$tracker->json('id')}";
        $this->api('PUT', $at, ['forwards' => false] + self::told('go.other.example', 1))
            ->assertOk()
            ->assertJson(['forwards' => false, 'revision' => 2]);
        $this->api('PUT', $at, self::told('go.other.example', 1))->assertStatus(409);
        $this->api('POST', '/trackers', self::told('go.other.example'))
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'a tracker of yours already'));
        $this->api('POST', '/trackers', self::told('https://Go.example/'))->assertStatus(422);
        $this->api('DELETE', $at)->assertNoContent();
        Queue::assertPushed(ProveAccount::class, 3);
    }

    public function test_a_url_is_followed_through_what_is_being_written(): void
    {
        $url = 'https://go.other.example/r?to=https%3A%2F%2Fv.example%2F%3Fa%3D1&utm_source=x';
        $tried = array_diff_key(self::told('go.other.example'), ['revision' => 0]) + ['url' => $url];
        $this->api('POST', '/trackers/trial', $tried)
            ->assertOk()
            ->assertJsonPath('trail.1', ['url' => 'https://v.example/?a=1&utm_source=x&gcid=G%201', 'stop' => 'landed'])
            ->assertJsonPath('arrival', [['a', '1'], ['utm_source', 'x'], ['gcid', 'G 1']]);
        $this->api('POST', '/trackers/trial', ['host' => null, 'parameter' => null] + $tried)
            ->assertOk()
            ->assertJsonPath('trail.0.stop', 'landed');
    }

    /** The demo's accounts have templates that lead over a tracker; nobody has told of it here. */
    public function test_texts_that_show_a_tracker_suggest_it(): void
    {
        $this->imported('NQ-2041');
        $this->api('GET', '/trackers')->assertOk()->assertJsonPath('suggested', []);
        $this->client->trackers()->delete();
        $suggested = $this->api('GET', '/trackers')->json('suggested');
        self::assertSame(['hopgate.localhost'], array_column($suggested, 'host'));
        self::assertSame(['to', true], [$suggested[0]['parameter'], $suggested[0]['isSure']]);
        self::assertStringContainsString('?to=http%3A%2F%2F', $suggested[0]['url']);
    }
}
