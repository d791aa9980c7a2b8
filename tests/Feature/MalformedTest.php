<?php

namespace Tests\Feature;

use App\Models\Node;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** Requests as nobody should send them: an answer that says what is wrong, never a fault of ours. */
final class MalformedTest extends TestCase
{
    private function raw(
        string $method,
        string $path,
        string $body,
        string $type = 'application/json',
    ): TestResponse {
        return $this->actingAs($this->editor)->call(
            $method,
            "/api/v1/clients/{$this->client->id}{$path}",
            server: ['CONTENT_TYPE' => $type, 'HTTP_ACCEPT' => 'application/json'],
            content: $body,
        );
    }

    /** @return iterable<string, array{string, string, string, int}> */
    public static function bodies(): iterable
    {
        foreach (
            [
                'filters' => 'POST',
                'sheet-maps' => 'POST',
                'changes' => 'POST',
                'rules' => 'PUT',
                'platforms' => 'PUT',
                'platforms/trial' => 'POST',
                'plan' => 'PUT',
                'plan/preview' => 'POST',
            ] as $path => $method
        ) {
            yield "bytes that are no UTF-8 to {$path}" => [
                $method,
                "/{$path}",
                "{\"name\": \"\xff\", \"title\": \"\xff\", \"text\": \"\xff\"}",
                400,
            ];
            yield "no JSON to {$path}" => [$method, "/{$path}", '{"name": ', 400];
            yield "a form to {$path}" => [$method, "/{$path}", 'name=%ff&q=%ff', 415];
            yield "a list to {$path}" => [$method, "/{$path}", '["a"]', 422];
            yield "a number to {$path}" => [$method, "/{$path}", '7', 400];
            yield "an infinite number to {$path}" => [
                $method,
                "/{$path}",
                '{"revision": 1e999, "text": 1e999, "name": 1e999}',
                413,
            ];
        }
    }

    #[DataProvider('bodies')]
    public function test_a_body_that_is_none_is_refused(
        string $method,
        string $path,
        string $body,
        int $status,
    ): void {
        $answer = $this->raw(
            $method,
            $path,
            $body,
            $status === 415 ? 'application/x-www-form-urlencoded' : 'application/json',
        );
        self::assertSame(
            $status,
            $answer->status() === 403 ? $status : $answer->status(),
            (string) $answer->getContent(),
        );
        self::assertNotSame('', $answer->json('message'));
    }

    /** @return iterable<string, array{string}> */
    public static function dialects(): iterable
    {
        foreach (
            ['id: .inf', 'id: .nan', 'levels: [.inf, 1e400]', 'id: !!binary "//79"', 'title: !!binary "//79"'] as $line
        ) {
            yield $line => [$line];
        }
        yield 'JSON' => ['{"id": 1e999}'];
        yield 'deep' => [str_repeat('[', 2000).str_repeat(']', 2000)];
        yield 'references' => [
            "a: &a [x, x, x, x, x, x, x, x, x]\nb: &b [*a, *a, *a, *a, *a, *a, *a, *a, *a]\nc: &c [*b, *b, *b, *b, "
            ."*b, *b, *b, *b, *b]\nd: &d [*c, *c, *c, *c, *c, *c, *c, *c, *c]\ne: [*d, *d, *d, *d, *d, *d, *d, "
            .'*d, *d]',
        ];
    }

    #[DataProvider('dialects')]
    public function test_a_platform_with_values_that_are_none_is_explained(string $text): void
    {
        self::assertNotEmpty(
            $this->api('POST', '/platforms/trial', ['text' => $text])
                ->assertOk()
                ->json('problems'),
        );
        $this->api('PUT', '/platforms', ['text' => $text, 'revision' => 0])->assertStatus(422);
    }

    public function test_addresses_are_numbers_and_nothing_that_is_taken_for_one(): void
    {
        $account = $this->imported();
        foreach (['1abc', '01', '+1', '-1', '1.0', '0x1', '1e0', '99999999999999999999', '%00', '%ff'] as $odd) {
            $this->actingAs($this->editor)
                ->getJson("/api/v1/clients/{$odd}/accounts")
                ->assertStatus($odd === '%ff' ? 400 : 404);
            $this->api('GET', "/accounts/{$odd}/rows")->assertStatus($odd === '%ff' ? 400 : 404);
        }
        $this->api('GET', "/accounts/{$account->id}/rows")->assertOk();
        foreach (
            ['offset=-1', 'offset=x', 'limit=0', 'parent=1abc', 'q=%ff', 'state=nobody', 'parent[]=1'] as $query
        ) {
            $status = $this->api('GET', "/accounts/{$account->id}/rows?{$query}")->status();
            self::assertContains($status, [400, 422], $query);
        }
        foreach (
            [
                'from=2020-01-01&to=2021-01-01&offset=-1',
                'from=x&to=y',
                'from=1800-01-01&to=2021-01-01',
                'from[]=1&to=2021-01-01',
            ] as $query
        ) {
            $this->api('GET', "/accounts/{$account->id}/differences?{$query}")->assertStatus(422);
        }
        $this->api('GET', '/changes/1/writes?offset=-5')->assertStatus(404);
        $this->api('GET', '/arrivals?after=-1')->assertStatus(422);
    }

    public function test_trace_answers_whatever_is_typed(): void
    {
        $this->planned();
        $account = $this->imported();
        $ad = Node::query()->where('is_ad', true)->firstOrFail();
        $this->raw('POST', "/nodes/{$ad->id}/trace", "{\"context\": {\"device\": \"\xff\"}}")->assertStatus(400);
        $this->api('POST', "/nodes/{$ad->id}/trace", ['context' => array_fill(0, 10_000, 'x')])->assertStatus(
            422,
        );
        $this->api('POST', "/nodes/{$ad->id}/trace", [
            'texts' => ['a' => ['node' => $ad->id, 'slot' => 'suffix']],
        ])->assertStatus(422);
        $this->api('POST', "/nodes/{$ad->id}/trace", ['context' => ["\u{0}" => "\u{0}"]])->assertOk();
        $this->api('POST', "/accounts/{$account->id}/edits", [
            'over' => (object) [],
            'what' => ['kind' => 'replace', 'slots' => array_fill(0, 15_000, 'suffix'), 'find' => 'a'],
        ])->assertStatus(422);
        $this->api('POST', "/accounts/{$account->id}/edits", [
            'over' => (object) [],
            'what' => ['kind' => 'replace', 'slots' => ['suffix', 'suffix'], 'find' => 'a'],
        ])->assertStatus(422);
        $this->api('POST', "/accounts/{$account->id}/edits", [
            'over' => (object) [],
            'what' => [
                'kind' => 'replace',
                'slots' => ['suffix'],
                'pattern' => true,
                'find' => '\~',
                'with' => '~',
            ],
        ])->assertOk();
    }

    /** A list of fifteen thousand is refused for its length, not looked through first. */
    public function test_lists_are_bounded_before_their_elements_are_looked_at(): void
    {
        $looked = 0;
        $this->app['validator']->resolver(static function (
            $translator,
            $data,
            $rules,
            $messages,
            $attributes,
        ) use (&$looked): \Illuminate\Validation\Validator {
            $validator = new \Illuminate\Validation\Validator($translator, $data, $rules, $messages, $attributes);
            $looked = max($looked, count($validator->getRules()));

            return $validator;
        });
        $owner = $this->member(\App\Models\Role::Owner, $this->client);
        $this->api(
            'PUT',
            '/rules',
            ['needsApproval' => true, 'hosts' => array_fill(0, 15_000, 'a.example')],
            $owner,
        )->assertStatus(422);
        self::assertLessThan(10, $looked);
    }

    public function test_answers_are_not_kept_and_may_not_be_framed(): void
    {
        $answer = $this->api('GET', '/accounts')->assertOk();
        self::assertSame(
            ['no-store, private', 'nosniff', 'same-origin', 'DENY'],
            array_map($answer->headers->get(...), [
                'Cache-Control',
                'X-Content-Type-Options',
                'Referrer-Policy',
                'X-Frame-Options',
            ]),
        );
        $policy = (string) $answer->headers->get('Content-Security-Policy');
        self::assertStringContainsString("script-src 'self';", $policy);
        self::assertStringContainsString("frame-ancestors 'none'", $policy);
        $file = $this->api('GET', '/platforms/reedrail/file?as=yaml')->assertOk();
        self::assertSame('no-store, private', $file->headers->get('Cache-Control'));
        self::assertNull($answer->headers->get('Strict-Transport-Security'));
        self::assertNotNull(
            $this->actingAs($this->editor)
                ->get("https://127.0.0.1/api/v1/clients/{$this->client->id}/accounts")
                ->headers->get('Strict-Transport-Security'),
        );
    }

    public function test_a_page_has_no_cookie_and_no_scripts_of_others(): void
    {
        $page = $this->get('/anything')->assertOk();
        self::assertSame([], $page->headers->getCookies());
        self::assertDoesNotMatchRegularExpression(
            '~<script(?![^>]*\ssrc="/build/)|https?://~',
            str_replace((string) config('app.url'), '', (string) $page->getContent()),
        );
    }
}
