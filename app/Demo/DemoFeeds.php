<?php

namespace App\Demo;

use App\Feeds\Drafting;
use App\Feeds\Fetching;
use App\Jobs\HandOnFeed;
use App\Models\Client;
use App\Models\User;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Str;

/** The catalogue of the demo's first client, handed on to a listings platform, whose clicks arrive. */
final readonly class DemoFeeds
{
    private const RULES = [
        [
            'title' => 'the shop’s own mark goes',
            'do' => [['take' => 'ref']],
        ],
        [
            'title' => 'every listing',
            'do' => [
                ['set' => 'utm_source', 'parts' => [['text' => 'tidepool']]],
                [
                    'set' => 'utm_campaign',
                    'parts' => [['text' => 'crossings-'], ['column' => 'island', 'shape' => 'slug']],
                ],
            ],
        ],
        [
            'title' => 'paid for',
            'links' => ['ad_link'],
            'do' => [['set' => 'utm_medium', 'parts' => [['text' => 'cpc']]]],
        ],
        [
            'title' => 'not paid for',
            'links' => ['link'],
            'do' => [['set' => 'utm_medium', 'parts' => [['text' => 'referral']]]],
        ],
        [
            'title' => 'dear ones are told apart',
            'when' => [['column' => 'price', 'over' => 100]],
            'do' => [['set' => 'utm_content', 'parts' => [['text' => 'over-100']]]],
        ],
    ];

    private const CLICKS = 600;

    public function __construct(private Fetching $fetching, private Drafting $drafting) {}

    public function make(): void
    {
        $client = Client::query()->where('slug', 'velmar')->firstOrFail();
        $ivo = User::query()->where('email', 'ivo@saltmarsh.example')->firstOrFail();
        $port = parse_url((string) config('demo.control'), PHP_URL_PORT);
        $feed = $client->feeds()->create([
            'name' => 'Crossings for Tidepool',
            'address' => "http://velmar.localhost:{$port}/list.xml",
            'every_minutes' => 60,
            'secret' => Str::random(40),
            'call' => Str::random(40),
        ]);
        $this->fetching->fetch($feed->load('client'));
        $draft = $feed->refresh()->drafts()->create([
            'copy_id' => $feed->kept_id,
            'rules' => self::RULES,
            'reads' => $feed->reads,
            'why' => 'paid and unpaid listings are to be told apart',
            'state' => 'working',
            'made_by' => $ivo->id,
            'made_at' => now(),
        ]);
        $this->drafting->work($draft);
        $this->drafting->apply($draft->refresh(), $ivo);
        HandOnFeed::dispatchSync($feed->id);
        Http::withHeaders(['Host' => 'control.localhost'])
            ->timeout(120)
            ->post(config('demo.control').'/listings', [
                'list' => $feed->refresh()->outAddress(),
                'clicks' => self::CLICKS,
            ])
            ->throw();
    }
}
