<?php

namespace App\Demo;

use App\Links\Making;
use App\Links\Wanted;
use App\Models\Client;
use App\Models\User;
use Illuminate\Support\Facades\DB;

/** The letters of the demo's first client: links that people have opened, and a poster that nobody has yet. */
final readonly class DemoLinks
{
    private const PAGES = [
        'prices' => '/prices',
        'booking' => '/book',
        'cabins' => '/cabins',
        'Skerrow' => '/islands/skerrow',
    ];

    public function __construct(private Making $making) {}

    public function make(int $days): void
    {
        $client = Client::query()->where('slug', 'velmar')->firstOrFail();
        $site = 'http://velmar.localhost:'.parse_url((string) config('demo.control'), PHP_URL_PORT);
        $wanted = [];
        for ($month = now()->subDays($days)->startOfMonth(); $month <= now(); $month = $month->copy()->addMonth()) {
            foreach (self::PAGES as $of => $page) {
                $wanted[] = Wanted::of([
                    'title' => "Letter of {$month->format('F')}, {$of}",
                    'landing' => $site.$page,
                    'pairs' => [
                        'utm_source' => 'letter',
                        'utm_medium' => 'email',
                        'utm_campaign' => $month->format('Y-m'),
                    ],
                    'short' => true,
                ]);
            }
        }
        $wanted[] = Wanted::of([
            'title' => 'Poster on the pier',
            'landing' => "{$site}/timetable",
            'pairs' => ['utm_source' => 'pier', 'utm_medium' => 'poster', 'utm_campaign' => 'Winter crossings'],
            'code' => 'pier',
        ]);
        $this->making->make($client, User::query()->where('email', 'ivo@saltmarsh.example')->firstOrFail(), $wanted);
    }

    /** Some open a link and leave before the page loads; programs look at it as soon as a letter goes out. */
    public function open(): void
    {
        DB::statement(
            'insert ignore into link_days (link_id, day, people, programs)
            select link_id, day, count(*) + floor(count(*) / 6) + (day(day) % 3 = 0), 2 * (day(day) < 4)
            from site_sessions where link_id is not null group by link_id, day',
        );
    }
}
