<?php

namespace Tests\Bench;

use App\Models\Node;
use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Http;

/**
 * Times what a key press in Trace and in a platform's trial asks of the server: within the process, and over HTTP from
 * outside.
 */
final class BenchKeys extends Command
{
    use TellsFigures;

    protected $signature = 'bench:keys';

    protected $description = 'Measures answers to a key press at the 95th percentile';

    private const KEYS = 200;

    private const WARM_UP = 20;

    public function handle(Kernel $kernel): int
    {
        $user = User::query()->where('email', 'mara@saltmarsh.example')->firstOrFail();
        Auth::login($user);
        $token = $user->createToken('bench')->plainTextToken;
        $ad = Node::query()
            ->where('is_ad', true)
            ->whereHas('account', fn ($q) => $q->where('external_id', 'NQ-2041'))
            ->orderBy('position')
            ->firstOrFail();
        $client = $ad->account->client_id;
        $yaml = file_get_contents(base_path('core/dialects/northquay-search.json'));
        $asked = [
            'a key in Trace' => [
                "/api/v1/clients/{$client}/nodes/{$ad->id}/trace",
                static fn (int $i): array => [
                    'context' => ['keyword.text' => substr('ferry to skerrow & back', 0, 1 + ($i % 22))],
                    'texts' => [['node' => $ad->id, 'slot' => 'suffix', 'text' => 'utm_term={term}&x='.$i]],
                ],
            ],
            'a key in a platform\'s trial' => [
                "/api/v1/clients/{$client}/platforms/trial",
                static fn (int $i): array => [
                    'text' => $yaml,
                    'nodes' => [
                        ['level' => 'account', 'slots' => ['suffix' => "a={term}&x={$i}"]],
                        ['level' => 'campaign', 'type' => 'text'],
                        ['level' => 'group'],
                        ['level' => 'ad', 'slots' => ['landing' => 'https://v.example/']],
                    ],
                    'context' => ['keyword.text' => 'a b'],
                ],
            ],
        ];
        foreach ($asked as $what => [$path, $body]) {
            $inside = $outside = [];
            for ($i = 0; $i < self::WARM_UP + self::KEYS; $i++) {
                $start = hrtime(true);
                $request = Request::create(
                    config('app.url').$path,
                    'POST',
                    server: ['HTTP_ACCEPT' => 'application/json', 'CONTENT_TYPE' => 'application/json'],
                    content: json_encode($body($i)),
                );
                $status = $kernel->handle($request)->getStatusCode();
                $inside[] = (hrtime(true) - $start) / 1e6;
                $start = hrtime(true);
                $answer = Http::withToken($token)
                    ->acceptJson()
                    ->post(config('app.url').$path, $body($i));
                $outside[] = (hrtime(true) - $start) / 1e6;
                if ($status !== 200 || ! $answer->ok()) {
                    $this->error("{$what}: {$status} and {$answer->status()}: {$answer->body()}");

                    return 1;
                }
            }
            foreach (
                ['server side' => [$inside, 20], 'answered' => [$outside, 100]] as $side => [$times, $most]
            ) {
                $this->figure(
                    "{$what}, {$side}, ms at the 95th percentile",
                    self::p95(array_slice($times, self::WARM_UP)),
                    $most,
                );
            }
        }
        $user->tokens()->delete();

        return $this->allMet();
    }
}
