<?php

namespace Tests\Bench;

use App\Feeds\Files\ItemsFile;
use App\Feeds\Files\Opening;
use App\Feeds\Files\Outlet;
use Illuminate\Console\Command;
use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Feed\FeedReader;
use Vestigon\Core\Feed\Items;

/** Times product lists with ten rules against bare passes that read and write the same files. */
final class BenchFeeds extends Command
{
    use TellsFigures;

    protected $signature = 'bench:feeds {--items=1000000}';

    protected $description = 'Measures product lists as multiples of reading and writing them';

    private const MOST_MB = 128;

    private const ROUNDS = 3;

    public function handle(): int
    {
        ini_set('memory_limit', '1G'); // a list of any length fits
        $items = (int) $this->option('items');
        $folder = sys_get_temp_dir().'/bench-feeds'.getmypid();
        mkdir($folder);
        [$text, $xml, $out] = ["{$folder}/list.csv", "{$folder}/list.xml", "{$folder}/out"];
        self::write($text, $xml, $items);
        foreach (['delimited' => $text, 'xml' => $xml] as $form => $path) {
            $isXml = $form === 'xml';
            $times = [];
            for ($round = 0; $round < self::ROUNDS; $round++) {
                $bare = self::timed(static fn () => $isXml ? self::bareXml($path, $out) : self::bare($path, $out));
                memory_reset_peak_usage();
                $times[] = self::timed(static fn () => self::through(Opening::of($path), $form, $out)) / $bare;
            }
            sort($times);
            $this->figure(
                number_format($items)." items of {$form}, ten rules; times a bare pass",
                $times[intdiv(self::ROUNDS, 2)],
                $isXml ? 2 : 3,
            );
            $this->figure('  its memory, MB', memory_get_peak_usage() / 1e6, self::MOST_MB);
        }
        array_map(unlink(...), glob("{$folder}/*") ?: []);
        rmdir($folder);

        return $this->allMet();
    }

    /** @return float seconds of the processor: what others do on the machine, and its disks, count less */
    private static function timed(\Closure $pass): float
    {
        $start = self::spent();
        $pass();

        return self::spent() - $start;
    }

    private static function spent(): float
    {
        $of = getrusage() ?: throw new \RuntimeException('the time that was spent is not known');

        return $of['ru_utime.tv_sec'] + $of['ru_stime.tv_sec']
            + ($of['ru_utime.tv_usec'] + $of['ru_stime.tv_usec']) / 1e6;
    }

    private static function write(string $text, string $xml, int $items): void
    {
        $a = fopen($text, 'wb') ?: throw new \RuntimeException("{$text} can't be written");
        $b = fopen($xml, 'wb') ?: throw new \RuntimeException("{$xml} can't be written");
        fwrite($a, "id,title,kind,island,price,stock,link,ad_link,image,note\n");
        fwrite($b, "<?xml version=\"1.0\"?>\n<rss version=\"2.0\"><channel>\n");
        for ($i = 0; $i < $items; $i++) {
            $kind = ['foot', 'car', 'van', 'cabin', 'bicycle'][$i % 5];
            $price = 10 + $i % 190;
            $page = 'https://velmar.example/islands/'.($i % 900)."?day={$i}";
            fputcsv($a, [
                "V{$i}",
                "Crossing {$i}, one way",
                $kind,
                'Skerrow',
                "{$price}.00 EUR",
                $i % 9,
                $page,
                $page,
                "https://velmar.example/{$i}.jpg",
                $i % 3 === 0 ? 'Only in summer' : '',
            ], ',', '"', '');
            fwrite(
                $b,
                "<item><id>V{$i}</id><title>Crossing {$i}, one way</title><kind>{$kind}</kind><island>Skerrow</island>".
                    "<price>{$price}.00 EUR</price><stock>".($i % 9)."</stock><link>{$page}</link>".
                    "<ad_link>{$page}</ad_link></item>\n",
            );
        }
        fwrite($b, "</channel></rss>\n");
        fclose($a);
        fclose($b);
    }

    private static function bare(string $path, string $to): void
    {
        $in = fopen($path, 'rb') ?: throw new \RuntimeException("{$path} can't be read");
        $out = fopen($to, 'wb') ?: throw new \RuntimeException("{$to} can't be written");
        while (($cells = fgetcsv($in, null, ',', '"', '')) !== false) {
            fputcsv($out, $cells, ',', '"', '');
        }
        fclose($in);
        fclose($out);
    }

    private static function bareXml(string $path, string $to): void
    {
        $reader = new \XMLReader();
        $reader->open($path, null, LIBXML_NONET);
        $writer = new \XMLWriter();
        $writer->openUri($to);
        while ($reader->read()) {
            match ($reader->nodeType) {
                \XMLReader::ELEMENT => $writer->startElement($reader->name),
                \XMLReader::END_ELEMENT => $writer->endElement(),
                \XMLReader::TEXT, \XMLReader::WHITESPACE, \XMLReader::SIGNIFICANT_WHITESPACE => $writer->text(
                    $reader->value,
                ),
                default => null,
            };
        }
        $writer->flush();
    }

    private static function through(ItemsFile $file, string $form, string $to): void
    {
        $items = new Items(FeedReader::read(new Cursor(self::feed($form))));
        $out = fopen($to, 'wb') ?: throw new \RuntimeException("{$to} can't be written");
        $outlet = new Outlet(static fn (string $text): int|false => fwrite($out, $text));
        foreach ($file->pieces() as $piece) {
            $cells = $piece->cells();
            $links = $cells === null ? [] : array_diff_assoc($items->next($cells)->links, $cells);
            $outlet->tell($links === [] ? $piece->raw() : $piece->with($links));
        }
        $outlet->end();
        fclose($out);
    }

    /** @return array<string, mixed> */
    private static function feed(string $form): array
    {
        $set = static fn (string $key, string $value, string $how = 'set'): array => [
            $how => $key,
            'parts' => [['text' => $value]],
        ];

        return [
            'format' => FeedReader::FORMAT,
            'title' => 'bench',
            'reads' => [
                'form' => $form,
                'id' => 'id',
                'links' => [['column' => 'link', 'kind' => 'unpaid'], ['column' => 'ad_link', 'kind' => 'paid']],
            ],
            'rules' => [
                ['title' => '1', 'do' => [['take' => 'ref']]],
                ['title' => '2', 'do' => [$set('utm_source', 'tidepool')]],
                ['title' => '3', 'links' => ['ad_link'], 'do' => [$set('utm_medium', 'cpc')]],
                ['title' => '4', 'links' => ['link'], 'do' => [$set('utm_medium', 'listing')]],
                [
                    'title' => '5',
                    'when' => [['column' => 'kind', 'in' => ['car', 'van']]],
                    'do' => [$set('utm_content', 'wheels')],
                ],
                [
                    'title' => '6',
                    'when' => [['column' => 'price', 'over' => 100]],
                    'do' => [$set('utm_term', 'dear', 'add')],
                ],
                [
                    'title' => '7',
                    'when' => [['column' => 'title', 'has' => 'return']],
                    'do' => [$set('utm_term', 'return')],
                ],
                ['title' => '8', 'when' => [['column' => 'stock', 'in' => ['0']]], 'do' => [$set('stock', 'none')]],
                [
                    'title' => '9',
                    'do' => [['set' => 'utm_campaign', 'parts' => [['text' => 'x-'], ['column' => 'island']]]],
                ],
                ['title' => '10', 'when' => [['column' => 'id', 'begins' => 'W']], 'do' => [['take' => 'day']]],
            ],
        ];
    }
}
