<?php

namespace Tests\Bench;

use App\Arrivals\Logs;
use App\Models\Client;
use App\Models\Collector;
use App\Models\SiteFile;
use App\Models\SiteFileState;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\File;

/** Times what pages report, over the web, and web servers' logs. */
final class BenchArrivals extends Command
{
    use TellsFigures;

    protected $signature = 'bench:arrivals {--reports=3000} {--lines=400000}';

    protected $description = 'Measures arrivals that pages report, and those that stand in logs';

    private const AT_ONCE = 100;

    /** What a page is served with: one line in so many is a page. */
    private const OF_A_PAGE = 5;

    private const AGENT = 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0';

    public function handle(): int
    {
        $client = Client::query()->create([
            'name' => 'Arrivals',
            'slug' => 'arrivals-'.bin2hex(random_bytes(3)),
            'time_zone' => 'UTC',
            'currency' => 'EUR',
        ]);
        $site = $client->collectors()->create([
            'site' => 'Shop',
            'hosts' => ['bench.example'],
            'key' => bin2hex(random_bytes(12)),
        ]);
        [$bare, $through] = $this->reported(
            $site,
            [config('app.url').'/bench/insert', config('app.url')."/in/{$site->key}"],
        );
        $this->figure('a page’s report; times a script that puts the same rows in', $through / $bare, 2);
        $this->log($site);

        return $this->allMet();
    }

    /**
     * @param list<string> $addresses
     * @return list<float> seconds for all reports of one view each to each address; one after the other over one
     *     connection, some here, some there, so that what else the machine does hits them all
     */
    private function reported(Collector $site, array $addresses): array
    {
        $curl = curl_init();
        curl_setopt_array($curl, [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_POST => true,
            CURLOPT_USERAGENT => self::AGENT,
            CURLOPT_HTTPHEADER => ['Content-Type: text/plain', 'Origin: https://bench.example'],
        ]);
        $seconds = array_map(static fn (): float => 0.0, $addresses);
        for ($i = -self::AT_ONCE; $i < (int) $this->option('reports'); $i += self::AT_ONCE) {
            foreach ($addresses as $n => $address) {
                $start = hrtime(true);
                for ($j = $i; $j < $i + self::AT_ONCE; $j++) {
                    $this->report($curl, $address, $site, "{$n}-{$j}", intdiv($j, 3));
                }
                $seconds[$n] += $i < 0 ? 0 : (hrtime(true) - $start) / 1e9; // the first ones warm up
            }
        }

        return $seconds;
    }

    private function report(\CurlHandle $curl, string $address, Collector $site, string $id, int $visitor): void
    {
        $now = now()->format('Y-m-d\TH:i:s.v\Z');
        curl_setopt($curl, CURLOPT_URL, $address);
        curl_setopt($curl, CURLOPT_POSTFIELDS, json_encode([
            'sent' => $now,
            'client' => $site->client_id,
            'collector' => $site->id,
            'events' => [[
                'id' => $id,
                'site' => 'shop',
                'at' => $now,
                'kind' => 'view',
                'url' => "https://bench.example/islands/{$id}?utm_source=northquay&utm_medium=cpc&utm_content={$id}",
                'referrer' => 'https://search.example/',
                'visitor' => $id[0].$visitor,
            ]],
        ], JSON_THROW_ON_ERROR));
        $answer = curl_exec($curl);
        if (curl_getinfo($curl, CURLINFO_RESPONSE_CODE) !== 202) {
            throw new \RuntimeException(
                "{$address} takes nothing ({$answer}): ./vestigon bench begins the stage that it is asked on",
            );
        }
    }

    private function log(Collector $site): void
    {
        $file = SiteFile::query()->create([
            'collector_id' => $site->id,
            'name' => 'access.log',
            'kind' => 'log',
            'bytes' => 0,
            'state' => SiteFileState::Waiting,
            'came_at' => now(),
        ]);
        File::ensureDirectoryExists(dirname($file->path()));
        $out = fopen($file->path(), 'wb') ?: throw new \RuntimeException('no file');
        $lines = (int) $this->option('lines');
        $begin = now()->subDay()->getTimestamp();
        for ($i = 0; $i < $lines; $i++) {
            $asked = $i % self::OF_A_PAGE === 0
                ? '/islands/'.($i % 700)."?utm_source=northquay&utm_medium=cpc&utm_campaign=spring&utm_content={$i}"
                : "/build/part-{$i}.css";
            fwrite($out, sprintf(
                '10.%d.%d.%d - - [%s] "GET %s HTTP/1.1" 200 %d "https://search.example/" "%s"'."\n",
                intdiv($i, 5000) % 250,
                intdiv($i, 20) % 250,
                $i % 250,
                gmdate('d/M/Y:H:i:s O', $begin + intdiv($i, 6)),
                $asked,
                4000 + $i % 999,
                self::AGENT,
            ));
        }
        fclose($out);
        $megabytes = filesize($file->path()) / 1e6;
        $start = hrtime(true);
        Logs::of($file->refresh())->read();
        $minutes = (hrtime(true) - $start) / 60e9;
        File::delete($file->path());
        if ($file->refresh()->taken !== intdiv($lines - 1, self::OF_A_PAGE) + 1) {
            throw new \RuntimeException("of the log's pages {$file->taken} were taken");
        }
        $this->figure(
            sprintf('minutes for 100 MB of a log (%.0f MB read, one line in %d a page)', $megabytes, self::OF_A_PAGE),
            $minutes / $megabytes * 100,
            1,
        );
    }
}
