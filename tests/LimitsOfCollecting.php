<?php

namespace Tests;

use App\Models\Collector;
use Illuminate\Testing\TestResponse;

/** What lies beyond the limits of what pages report and servers hand in. */
trait LimitsOfCollecting
{
    private function reporting(): Collector
    {
        return $this->client
            ->collectors()
            ->create([
                'site' => 'Reports',
                'hosts' => ['v.example'],
                'key' => str_repeat('r', 24),
                'token_hash' => hash('sha256', 'secret'),
            ]);
    }

    /** @param array<string, mixed> $more */
    private static function reported(string $id, array $more = []): array
    {
        $at = now()->toIso8601ZuluString('millisecond');

        return $more + ['id' => $id, 'site' => 's', 'kind' => 'view', 'at' => $at, 'url' => 'https://v.example/'];
    }

    /** @param list<array<string, mixed>> $events */
    private function report(array $events): TestResponse
    {
        return $this->call(
            'POST',
            "/in/{$this->reporting()->key}",
            server: ['HTTP_ORIGIN' => 'https://v.example'],
            content: (string) json_encode([
                'sent' => now()->toIso8601ZuluString('millisecond'),
                'events' => $events,
            ]),
        );
    }

    /** @param list<array<string, mixed>> $events */
    private function handIn(array $events): TestResponse
    {
        return $this->postJson(
            "/in/{$this->reporting()->key}/records",
            ['events' => $events],
            ['Authorization' => 'Bearer secret'],
        );
    }

    private function beyond_collect_bytes(): TestResponse
    {
        return $this->report([self::reported('a', ['url' => 'https://v.example/'.str_repeat('a', 70_000)])]);
    }

    private function beyond_collect_events(): string
    {
        $events = array_map(static fn (int $i): array => self::reported("e{$i}"), range(1, 53));
        $this->report($events)->assertStatus(422)->assertJson(['taken' => 50, 'refused' => ['too-many' => 3]]);

        return '422, the first are taken';
    }

    private function beyond_collect_days(): string
    {
        $old = ['at' => now()->subDays(2)->toIso8601ZuluString('millisecond')];
        $this->report([self::reported('a', $old), self::reported('b')])
            ->assertStatus(422)
            ->assertJson(['taken' => 1, 'refused' => ['too-late' => 1]]);

        return '422, the others are taken';
    }

    private function beyond_record_bytes(): TestResponse
    {
        return $this->handIn([self::reported('a', ['kind' => 'convert', 'name' => str_repeat('a', 1_100_000)])]);
    }

    private function beyond_records(): string
    {
        $sale = ['kind' => 'convert'];
        $this->handIn(array_map(static fn (int $i): array => self::reported("e{$i}", $sale), range(1, 1001)))
            ->assertStatus(422)
            ->assertJson(['taken' => 0, 'refused' => ['too-many' => 1001]]);

        return '422, none is taken';
    }

    private function beyond_record_days(): string
    {
        $old = ['at' => now()->subDays(61)->toIso8601ZuluString(), 'kind' => 'convert'];
        $this->handIn([self::reported('a', $old), self::reported('b', ['kind' => 'convert'])])
            ->assertStatus(422)
            ->assertJson(['taken' => 1, 'refused' => ['too-late' => 1]]);

        return '422, the others are taken';
    }

    private function beyond_conversion_value(): string
    {
        $huge = ['kind' => 'convert', 'value' => 10 ** 12 + 1, 'currency' => 'EUR'];
        $this->report([self::reported('a', $huge), self::reported('b')])
            ->assertStatus(422)
            ->assertJson(['taken' => 1, 'refused' => ['huge-value' => 1]]);

        return '422, the others are taken';
    }
}
