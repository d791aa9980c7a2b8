<?php

namespace Tests\Bench;

use App\Accounts\Proof;
use App\Models\Account;
use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/**
 * Times pages of 200 rows against the SQL that they need, in one process; for the bench's own database only, since it
 * grows an account.
 */
final class BenchPages extends Command
{
    use TellsFigures;

    protected $signature = 'bench:pages
        {--copies=135 : how often the demo account is copied into the large one}
        {--million=1350 : and into the largest}';

    protected $description = 'Measures API answers as multiples of their SQL';

    private const ROUNDS = 25;

    private const WARM_UP = 15;

    private const WEIGHED = 5;

    /** @var list<float> milliseconds */
    private array $sql = [];

    public function handle(Kernel $kernel): int
    {
        DB::listen(function ($query): void {
            $this->sql[] = $query->time;
        });
        Auth::login(User::query()->where('email', 'mara@saltmarsh.example')->firstOrFail());
        $small = Account::query()->with('client')->where('external_id', 'NQ-2041')->firstOrFail();
        $small->client->plans()->create(['revision' => 1, 'document' => TestCase::PLAN]);
        app(Proof::class)->refresh($small);
        $large = Grown::from($small, 'grown', (int) $this->option('copies'));
        $largest = Grown::from($small, 'million', (int) $this->option('million'));

        foreach ([$small, $large] as $account) {
            $ads = $account->nodes()->where('is_ad', true)->count();
            foreach (
                [
                    'broken ads' => 'state=broken',
                    'ads by name' => 'q=day+trips',
                    'broken, by name' => 'q=ferry+car&state=broken',
                ] as $what => $query
            ) {
                [$ratio, $rows] = $this->measure(
                    $kernel,
                    "/api/v1/clients/{$account->client_id}/accounts/{$account->id}/rows?limit=200&{$query}",
                );
                if ($rows < 200) {
                    continue; // no full page in the small account
                }
                $this->figure("page of {$rows}, {$what}, of {$ads} ads; times its SQL", $ratio, 3);
            }
        }

        foreach (self::asked($largest) as $what => $path) {
            $this->timed($kernel, $what, $path);
        }
        $this->weighed($kernel, $largest);

        return $this->allMet();
    }

    /** @return array<string, string> what is asked of a million ads, with its path */
    private static function asked(Account $account): array
    {
        $client = "/api/v1/clients/{$account->client_id}";
        $rows = "{$client}/accounts/{$account->id}/rows?limit=100";
        $number = $account->nodes()->where('is_ad', true)->latest('id')->value('external_id');

        return [
            'campaigns' => $rows,
            'broken' => "{$rows}&state=broken",
            'a word' => "{$rows}&q=ferry",
            'two words' => "{$rows}&q=day+trips",
            'two words, broken' => "{$rows}&q=ferry+car&state=broken",
            'a letter' => "{$rows}&q=s",
            'a number' => "{$rows}&q={$number}",
            'the end of a number' => "{$rows}&q=".substr($number, -6),
            'nothing of that name' => "{$rows}&q=zzz",
            'find anything, two words' => "{$client}/search?q=day+trips",
            'find anything, a number' => "{$client}/search?q={$number}",
            'the picture' => "{$client}/accounts/{$account->id}/picture",
        ];
    }

    /** What another plan would break, of a million ads: the first answer. */
    private function weighed(Kernel $kernel, Account $account): void
    {
        $document = TestCase::PLAN;
        $document['parameters'][0]['parts'] = [['text' => 'elsewhere']];
        $body = json_encode(['document' => $document, 'account' => $account->id]);
        $times = [];
        for ($i = 0; $i < self::WEIGHED; $i++) {
            $start = hrtime(true);
            $response = $kernel->handle(
                Request::create(
                    config('app.url')."/api/v1/clients/{$account->client_id}/plan/consequences",
                    'POST',
                    server: ['HTTP_ACCEPT' => 'application/json', 'CONTENT_TYPE' => 'application/json'],
                    content: (string) $body,
                ),
            );
            if ($response->getStatusCode() !== 200) {
                throw new \RuntimeException("what a plan would break is answered {$response->getContent()}");
            }
            $times[] = (hrtime(true) - $start) / 1e6;
        }
        $this->figure('a million ads: what another plan would break, first answer, ms', self::p95($times), 2000);
    }

    private function timed(Kernel $kernel, string $what, string $path): void
    {
        $times = [];
        for ($i = 0; $i < self::WARM_UP + self::ROUNDS; $i++) {
            $start = hrtime(true);
            $status = $kernel->handle(
                Request::create(config('app.url').$path, 'GET', server: ['HTTP_ACCEPT' => 'application/json']),
            )->getStatusCode();
            if ($status !== 200) {
                throw new \RuntimeException("{$path} is answered {$status}");
            }
            $times[] = (hrtime(true) - $start) / 1e6;
        }
        $this->figure(
            "a million ads: {$what}, ms at the 95th percentile",
            self::p95(array_slice($times, self::WARM_UP)),
            100,
        );
    }

    /** @return array{float, int} the median of whole time by SQL time; rows */
    private function measure(Kernel $kernel, string $path): array
    {
        $ratios = [];
        $rows = 0;
        for ($i = 0; $i < self::WARM_UP + self::ROUNDS; $i++) {
            $this->sql = [];
            $start = hrtime(true);
            $response = $kernel->handle(
                Request::create(config('app.url').$path, 'GET', server: ['HTTP_ACCEPT' => 'application/json']),
            );
            $time = (hrtime(true) - $start) / 1e6;
            if ($i >= self::WARM_UP) {
                $ratios[] = $time / max(array_sum($this->sql), 0.001);
            }
            $rows = count(
                json_decode((string) $response->getContent(), true)['rows']
                    ?? throw new \RuntimeException((string) $response->getContent()),
            );
        }
        sort($ratios);

        return [$ratios[intdiv(self::ROUNDS, 2)], $rows];
    }
}
