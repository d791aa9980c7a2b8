<?php

namespace App\Troubles;

use App\Models\Client;
use App\Models\Trouble;
use App\Results\Question;
use App\Results\Sums;
use App\Sheets\Files\Form;
use App\Sheets\Files\Writing;
use App\Support\Money;
use Illuminate\Database\Eloquent\Collection;

/** What is wrong, to hand on: a page that needs nothing else, or a workbook. */
final readonly class Report
{
    /** Of so many causes, the dearest, some ads are named. */
    private const IN_FULL = 12;

    private const ADS = 5;

    public function __construct(private AdsOf $ads, private Sums $sums) {}

    /** HTML that holds its own style and pictures. */
    public function page(Client $client): string
    {
        $all = self::troubles($client);
        $ads = [];
        foreach ($all->whereNull('mended_at')->take(self::IN_FULL) as $trouble) {
            $ads[$trouble->id] = array_slice($this->ads->of($client, $trouble)['items'], 0, self::ADS);
        }

        return view('audit', [
            'client' => $client,
            'today' => now($client->time_zone)->toDateString(),
            'since' => Looking::since($client),
            'open' => $all->filter(fn (Trouble $t): bool => self::standing($client, $t) === 'open'),
            'accepted' => $all->filter(fn (Trouble $t): bool => self::standing($client, $t) === 'accepted'),
            'mended' => $all->whereNotNull('mended_at'),
            'ads' => $ads,
            'most' => max(1, (int) $all->max('cost')),
            'spent' => $this->spent($client),
            'proof' => ProofPicture::of(ProofDay::all($client)),
        ])->render();
    }

    /** @return array{path: string, name: string, type: string} */
    public function workbook(Client $client): array
    {
        $today = now($client->time_zone)->toDateString();

        return Writing::files(
            [
                'audit' => [
                    [
                        'title' => 'causes',
                        'form' => new Form('xlsx'),
                        'rows' => static fn (): iterable => self::causes($client),
                    ],
                    [
                        'title' => 'proof by day',
                        'form' => new Form('xlsx'),
                        'rows' => static fn (): iterable => self::days($client),
                    ],
                ],
            ],
            "audit {$client->slug} {$today}",
        );
    }

    /** @return iterable<list<mixed>> */
    private static function causes(Client $client): iterable
    {
        $cost = "cost {$client->currency}";
        yield ['what', 'where', 'standing', 'ads', 'clicks', $cost, 'since', 'accepted until', 'why', 'mended'];
        foreach (self::troubles($client) as $t) {
            yield [
                $t->what,
                $t->place(),
                self::standing($client, $t),
                $t->ads,
                $t->clicks,
                Money::plain($t->cost, $client->currency),
                ($t->returned_at ?? $t->first_at)->toDateString(),
                (string) $t->accepted_until,
                (string) $t->accepted_why,
                (string) $t->mended_at?->toDateString(),
            ];
        }
    }

    /** @return iterable<list<mixed>> */
    private static function days(Client $client): iterable
    {
        yield ['day', 'proven', 'broken', 'untracked'];
        foreach (ProofDay::all($client) as $day) {
            yield array_values($day);
        }
    }

    /** @return Collection<int, Trouble> */
    private static function troubles(Client $client): Collection
    {
        return Troubles::shown($client)->get();
    }

    private static function standing(Client $client, Trouble $trouble): string
    {
        return match (true) {
            $trouble->mended_at !== null => 'mended',
            (string) $trouble->accepted_until > now($client->time_zone)->toDateString() => 'accepted',
            default => 'open',
        };
    }

    /** What clicks have cost in the time that troubles are told of. */
    public function spent(Client $client): int
    {
        $asked = new Question([], Looking::since($client), now($client->time_zone)->toDateString());

        return $this->sums->of($client, $asked)['']->cost[$client->currency] ?? 0;
    }
}
