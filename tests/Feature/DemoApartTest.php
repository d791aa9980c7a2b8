<?php

namespace Tests\Feature;

use App\Clicks\Gate;
use App\Models\Collector;
use Illuminate\Console\Scheduling\Schedule;
use Symfony\Component\Process\Process;
use Tests\TestCase;

/** What belongs to the demo is nowhere else; what has to be done by the clock, the scheduler does. */
final class DemoApartTest extends TestCase
{
    public function test_without_the_demo_there_is_no_stand_in_and_no_way_to_this_machine(): void
    {
        $asked = static function (string ...$command): Process {
            $process = new Process(['php', 'artisan', ...$command], base_path(), ['VESTIGON_DEMO' => '0']);
            $process->run();

            return $process;
        };
        $list = $asked('list', '--raw');
        self::assertSame(0, $list->getExitCode(), $list->getErrorOutput());
        self::assertStringContainsString('changes:go-on', $list->getOutput());
        self::assertStringNotContainsString('demo:', $list->getOutput());
        foreach (['platforms.ads', 'platforms.near'] as $key) {
            $shown = $asked('config:show', $key)->getOutput();
            self::assertStringNotContainsString('localhost', $shown, $key);
        }

        $click = 'http://velmar.localhost:'.env('STANDINS_PORT').'/';
        self::assertNull((new Gate(['velmar.localhost']))->ask($click)['refused']);
        config(['platforms.near' => []]);
        self::assertStringContainsString(
            'only 80 and 443',
            (string) (new Gate(['velmar.localhost']))->ask($click)['refused'],
        );
    }

    public function test_arrivals_are_read_each_second_and_changes_gone_on_with(): void
    {
        $collector = Collector::query()->create([
            'client_id' => $this->client->id,
            'site' => 'velmar',
            'credentials' => 'tally-4410',
        ]);
        $events = collect($this->app->make(Schedule::class)->events())->keyBy('description');
        self::assertSame(
            [
                'agreements' => null, // each minute, or less often
                'arrivals' => 1,
                'changes' => 5,
                'days' => null,
                'feeds' => null,
                'figures' => null,
                'imports' => null,
                'links' => null,
                'links again' => null,
                'results' => null,
                'troubles' => null,
            ],
            $events->map(static fn ($e): ?int => $e->repeatSeconds)->sortKeys()->all(),
        );
        foreach ($events as $event) {
            $event->run($this->app);
            self::assertSame(0, $event->exitCode);
        }
        self::assertNotNull($collector->refresh()->read_at);
        self::assertNull($collector->problem);
    }
}
