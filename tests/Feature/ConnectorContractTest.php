<?php

namespace Tests\Feature;

use App\Clicks\TestClick;
use App\Connectors\Connectors;
use App\Connectors\KnownClick;
use App\Models\ChangeStatus;
use App\Models\Node;
use Illuminate\Http\Client\Events\ResponseReceived;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Event;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use Symfony\Component\Yaml\Yaml;
use Tests\TestCase;

/** Our driver and the stand-ins speak the connector protocol as it is published. */
final class ConnectorContractTest extends TestCase
{
    /** @var array<string, int> operation → how often it was held */
    private array $held = [];

    /** @var array<string, mixed> */
    private array $document;

    protected function setUp(): void
    {
        parent::setUp();
        $this->document = Yaml::parseFile(base_path('docs/formats/connector.openapi.yaml'));
        Event::listen(function (ResponseReceived $event): void {
            $path = (string) parse_url($event->request->url(), PHP_URL_PATH);
            if (str_starts_with($path, '/v1/accounts') || $path === '/v1/token') {
                $this->hold($event, $path);
            }
        });
    }

    private function hold(ResponseReceived $event, string $path): void
    {
        $method = strtolower($event->request->method());
        foreach ($this->document['paths'] as $pattern => $operations) {
            $regex = '~^'.preg_replace('/\\\\\{\w+\\\\\}/', '[^/]+', preg_quote($pattern, '~')).'$~';
            if (preg_match($regex, $path) !== 1 || ! isset($operations[$method])) {
                continue;
            }
            $operation = $operations[$method];
            $this->held["{$method} {$pattern}"] = ($this->held["{$method} {$pattern}"] ?? 0) + 1;
            if (isset($operation['requestBody'])) {
                $this->fits($operation['requestBody'], $event->request->body(), "{$method} {$pattern}, asked");
            }
            $answer = $operation['responses'][(string) $event->response->status()] ?? null;
            $answer ??= $this->document['components']['responses']['Refusal'];
            $this->fits($answer, $event->response->body(), "{$method} {$pattern}, answered");
            parse_str((string) parse_url($event->request->url(), PHP_URL_QUERY), $query);
            $told = array_column($operation['parameters'] ?? [], 'name');
            self::assertSame([], array_diff(array_keys($query), $told), "{$pattern}: parameters that are not told of");

            return;
        }
        self::fail("{$method} {$path} is not in the document");
    }

    /** @param array<string, mixed> $of a body of the document */
    private function fits(array $of, string $body, string $what): void
    {
        $schema = [
            '$schema' => 'https://json-schema.org/draft/2020-12/schema',
            '$id' => 'https://vestigon.example/connector',
            ...$of['content']['application/json']['schema'],
            'components' => $this->document['components'],
        ];
        $result = (new Validator())->validate(
            json_decode($body),
            json_decode((string) json_encode($schema, JSON_THROW_ON_ERROR)),
        );
        $error = $result->error();
        self::assertTrue(
            $result->isValid(),
            $what.': '.($error === null ? '' : json_encode((new ErrorFormatter())->format($error))),
        );
    }

    public function test_an_import_a_change_and_its_test_clicks_keep_the_protocol(): void
    {
        Cache::flush(); // tokens
        $account = $this->imported();
        $this->planned();
        $change = $this->inLine($account);
        foreach (['trial', 'rest'] as $stage) {
            $this->api('POST', "/changes/{$change->id}/application")->assertStatus(202);
        }
        self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
        $connector = app(Connectors::class)->to($account->link);
        $ad = Node::query()->where(['is_ad' => true, 'standing' => 'live'])->firstOrFail();
        $click = (new TestClick($account, $connector, $this->client->plan()->read()))->of($ad->id);
        $found = $connector->clicks($account->link, $account->external_id, [$click['clickId'], 'nobodys']);
        self::assertSame(
            [$click['clickId'] => $ad->external_id],
            array_map(static fn (KnownClick $c): string => $c->ad, $found),
        );
        $this->standins('/people', ['days' => 2]);
        $days = [now()->subDays(2)->toDateString(), now()->toDateString()];
        $figures = iterator_to_array(
            $connector->figures($account->link, $account->external_id, ...$days),
            false,
        );
        self::assertGreaterThan(10, array_sum(array_column($figures, 'clicks')));
        $all = [];
        foreach ($this->document['paths'] as $path => $operations) {
            foreach (array_keys($operations) as $method) {
                $all[] = "{$method} {$path}";
            }
        }
        self::assertSame([], array_diff($all, array_keys($this->held)), 'every call was made and held');
    }

    public function test_a_token_that_is_forgotten_before_its_time_is_asked_for_anew(): void
    {
        $account = $this->imported();
        $signedIn = $this->held['post /v1/token'] ?? 0;
        $this->standins('/reset'); // all tokens with it
        $this->api('POST', "/connections/{$account->connection_id}/imports")->assertStatus(202);
        $this->api('GET', '/connections')->assertJsonPath('lastImport.status', 'done');
        self::assertSame($signedIn + 1, $this->held['post /v1/token']);
    }

    public function test_refusals_keep_the_protocol(): void
    {
        $account = $this->imported();
        $account->link->update(['credentials' => ['client' => 'nobody', 'secret' => 'x']]);
        $this->api('POST', "/connections/{$account->connection_id}/imports")->assertStatus(202);
        self::assertGreaterThan(0, $this->held['post /v1/token']);
        $this->api('GET', '/connections')->assertJsonPath('lastImport.status', 'failed');
    }
}
