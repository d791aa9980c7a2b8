<?php

namespace Tests\Bench;

use App\Http\Requests\LinksRequest;
use App\Models\Client;
use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;

/** Times links made in bulk, and short addresses as they are opened over the web. */
final class BenchLinks extends Command
{
    use TellsFigures;

    protected $signature = 'bench:links {--links=50000} {--opens=2000}';

    protected $description = 'Measures links made in bulk, and opened';

    private const WARM_UP = 100;

    public function handle(Kernel $kernel): int
    {
        Auth::login(User::query()->where('email', 'mara@saltmarsh.example')->firstOrFail());
        $client = Client::query()->where('slug', 'velmar')->firstOrFail();
        $links = (int) $this->option('links');
        $start = hrtime(true);
        for ($n = 0; $n < $links; $n += LinksRequest::MOST) {
            $this->make($kernel, $client, $n, min(LinksRequest::MOST, $links - $n));
        }
        $this->figure("{$links} links made in bulk, s", (hrtime(true) - $start) / 1e9, 20);

        $code = (string) $client->links()->whereNotNull('code')->latest('id')->value('code');
        $address = config('app.url')."/s/{$code}";
        $bare = $this->asked(config('app.url').'/bench/constant');
        $opened = $this->asked($address);
        $this->figure(
            'a short address opened; times a script that answers 302 with a constant',
            $opened / $bare,
            1.5,
        );

        return $this->allMet();
    }

    private function make(Kernel $kernel, Client $client, int $from, int $many): void
    {
        $rows = [];
        for ($i = $from; $i < $from + $many; $i++) {
            $rows[] = [
                'landing' => 'https://velmar.example/islands/'.($i % 300),
                'pairs' => ['utm_source' => 'letter', 'utm_medium' => 'email', 'utm_campaign' => "issue-{$i}"],
                'title' => "Letter {$i}",
                'short' => true,
            ];
        }
        $request = Request::create(
            config('app.url')."/api/v1/clients/{$client->id}/links",
            'POST',
            server: ['HTTP_ACCEPT' => 'application/json', 'CONTENT_TYPE' => 'application/json'],
            content: (string) json_encode(['rows' => $rows]),
        );
        $answer = $kernel->handle($request);
        if ($answer->getStatusCode() !== 201) {
            throw new \RuntimeException((string) $answer->getContent());
        }
    }

    /** @return float seconds for all of them, one after the other over one connection */
    private function asked(string $address): float
    {
        $curl = curl_init();
        curl_setopt_array($curl, [
            CURLOPT_URL => $address,
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_USERAGENT => 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0',
        ]);
        $start = 0;
        for ($i = -self::WARM_UP; $i < (int) $this->option('opens'); $i++) {
            $start = $i === 0 ? hrtime(true) : $start;
            curl_exec($curl);
            if (curl_getinfo($curl, CURLINFO_RESPONSE_CODE) !== 302) {
                throw new \RuntimeException(
                    "{$address} does not lead on: ./vestigon bench begins the stage that it is asked on",
                );
            }
        }

        return (hrtime(true) - $start) / 1e9;
    }
}
