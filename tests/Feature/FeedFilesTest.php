<?php

namespace Tests\Feature;

use App\Feeds\Files\Opening;
use App\Feeds\Files\WellFormed;
use App\Feeds\Suggestion;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;
use Vestigon\Core\Document\UnusableInput;

/** Random lists in every form, held against PHP's own readers: fgetcsv, DOM, json_decode. */
final class FeedFilesTest extends TestCase
{
    private const TEXTS = [
        'Ärmel',
        'a & b',
        '<b>',
        '"quoted"',
        "it's",
        '50 % off',
        '',
        'x;y,z|w',
        '&amp;',
        'ﬁ',
        '0',
        ']]>',
    ];

    /** @return iterable<string, array{string, int}> */
    public static function seeds(): iterable
    {
        foreach (['csv', 'xml', 'ndjson'] as $form) {
            foreach (range(1, 8) as $seed) {
                yield "{$form} {$seed}" => [$form, $seed];
            }
        }
    }

    /** @return list<array<string, string>> */
    private static function items(): array
    {
        $items = [];
        for ($i = mt_rand(1, 30); $i > 0; $i--) {
            $link =
                "https://velmar.example/t/{$i}?a=".
                rawurlencode(self::TEXTS[array_rand(self::TEXTS)]).
                '&b=~#x';
            $items[] = [
                'id' => "T{$i}",
                'title' => self::TEXTS[array_rand(self::TEXTS)].' '.self::TEXTS[array_rand(self::TEXTS)],
                'link' => mt_rand(0, 5) === 0 ? '' : $link,
                'ad_link' => $link,
                'note' => self::TEXTS[array_rand(self::TEXTS)],
            ];
        }

        return $items;
    }

    /** @param list<array<string, string>> $items */
    private static function written(string $form, array $items): string
    {
        return match ($form) {
            'csv' => self::csv($items),
            'xml' => self::xml($items),
            default => implode(
                '',
                array_map(
                    static fn (array $i): string => json_encode($i, mt_rand(0, 1) * JSON_UNESCAPED_UNICODE)."\n",
                    $items,
                ),
            ),
        };
    }

    /** @param list<array<string, string>> $items */
    private static function csv(array $items): string
    {
        $delimiter = [',', ';', "\t"][mt_rand(0, 2)];
        $out = fopen('php://memory', 'w+b') ?: throw new \RuntimeException();
        fputcsv($out, array_keys($items[0]), $delimiter, '"', '', ["\n", "\r\n"][mt_rand(0, 1)]);
        foreach ($items as $item) {
            fputcsv($out, $item, $delimiter, '"', '');
        }
        rewind($out);

        return (mt_rand(0, 1) === 1 ? "\xEF\xBB\xBF" : '').stream_get_contents($out);
    }

    /** @param list<array<string, string>> $items */
    private static function xml(array $items): string
    {
        $xml = '<?xml version="1.0"?><shop><name>Items &amp; more</name><items>';
        foreach ($items as $item) {
            $xml .= ["\n  ", '<!-- <item><id>no</id></item> -->', ''][mt_rand(0, 2)].'<item>';
            foreach ($item as $name => $text) {
                $isCdata = mt_rand(0, 2) === 0 && ! str_contains($text, ']]>');
                $text = $isCdata ? "<![CDATA[{$text}]]>" : htmlspecialchars($text, ENT_XML1 | ENT_QUOTES);
                $xml .=
                    ["\n    ", ''][mt_rand(0, 1)].
                    ($text === '' && mt_rand(0, 1) === 1 ? "<{$name}/>" : "<{$name}>{$text}</{$name}>");
            }
            $xml .= '</item>';
        }

        return "{$xml}</items></shop>\n";
    }

    /** @return list<array<string, string>> the items, as PHP's own reader of the form sees them */
    private static function readByPhp(string $form, string $content, array $columns): array
    {
        if ($form === 'ndjson') {
            return array_map(
                static fn (string $line): array => (array) json_decode($line, true),
                array_values(array_filter(explode("\n", $content), strlen(...))),
            );
        }
        if ($form === 'xml') {
            $document = new \DOMDocument();
            self::assertTrue($document->loadXML($content));
            $items = [];
            foreach ((new \DOMXPath($document))->query('/shop/items/item') ?: [] as $node) {
                $item = [];
                foreach ($columns as $column) {
                    foreach ($node->childNodes as $child) {
                        if ($child->nodeName === $column) {
                            $item[$column] = trim($child->textContent);
                        }
                    }
                }
                $items[] = $item;
            }

            return $items;
        }
        $in = fopen('php://memory', 'w+b') ?: throw new \RuntimeException();
        fwrite($in, str_starts_with($content, "\xEF\xBB\xBF") ? substr($content, 3) : $content);
        rewind($in);
        $delimiter = array_values(
            array_filter(
                [',', ';', "\t"],
                static fn (string $d): bool => str_contains((string) strtok($content, "\n"), $d),
            ),
        )[0];
        $heads = fgetcsv($in, null, $delimiter, '"', '') ?: [];
        $items = [];
        while (($cells = fgetcsv($in, null, $delimiter, '"', '')) !== false) {
            $items[] = array_combine($heads, $cells);
        }

        return $items;
    }

    #[DataProvider('seeds')]
    public function test_items_are_those_that_php_reads_before_links_are_changed_and_after(
        string $form,
        int $seed,
    ): void {
        mt_srand($seed * 31 + strlen($form));
        $items = self::items();
        $content = self::written($form, $items);
        $path = (string) tempnam(sys_get_temp_dir(), 'feed');
        file_put_contents($path, $content);
        $columns = array_keys($items[0]);
        $trimmed = static fn (array $all): array => array_map(
            static fn (array $item): array => array_map(trim(...), $item),
            $all,
        );
        self::assertEquals($trimmed($items), $trimmed(self::readByPhp($form, $content, $columns)));

        $read = [];
        $out = '';
        $wanted = $items;
        foreach (Opening::of($path)->pieces() as $piece) {
            $cells = $piece->cells();
            if ($cells === null) {
                $out .= $piece->raw();

                continue;
            }
            $n = count($read);
            $read[] = array_replace(array_fill_keys($columns, ''), $cells);
            $link = $cells['ad_link']."&n={$n}&q=%22\"'<>";
            $wanted[$n]['ad_link'] = $link;
            $out .= mt_rand(0, 2) === 0 ? $piece->raw() : $piece->with(['ad_link' => $link]);
            if (! str_ends_with($out, $piece->with(['ad_link' => $link]))) {
                $wanted[$n] = $items[$n];
            }
        }
        self::assertEquals($trimmed($items), $trimmed($read));
        self::assertEquals($trimmed($wanted), $trimmed(self::readByPhp($form, $out, $columns)));
        self::assertSame('id', Suggestion::of(Opening::of($path))['id']);
        self::assertContains('ad_link', array_column(Suggestion::of(Opening::of($path))['links'], 'column'));
    }

    /** What is parsed in haste is refused where PHP's own reader refuses it, and nowhere else. */
    public function test_what_is_not_well_formed_is_what_php_s_own_reader_does_not_read(): void
    {
        mt_srand(20261201);
        $path = (string) tempnam(sys_get_temp_dir(), 'xml');
        $refused = 0;
        for ($i = 0; $i < 600; $i++) {
            $items = implode("\n", array_map(
                static fn (int $n): string => '<item><id>'.$n.'</id><a/><b c="/&gt;" />x > y<g:d>'.$n.'</g:d></item>',
                range(1, mt_rand(1, 200)),
            ));
            $deep = str_repeat('<b>', 90).str_repeat('</b>', 90);
            $end = ['', '<!-- end -->', '<![CDATA[<a>]]>', '<?x y?>', $deep][$i % 5];
            $xml = '<?xml version="1.0"?><list xmlns:g="urn:g">'."{$items}{$end}</list>\n";
            $at = mt_rand(30, strlen($xml) - 1);
            $xml = match (mt_rand(0, 4)) {
                0 => $xml,
                1 => substr($xml, 0, $at),
                2 => substr_replace($xml, ['<', '>', '&', '/', '"', "\1"][mt_rand(0, 5)], $at, mt_rand(0, 1)),
                3 => str_replace(' xmlns:g="urn:g"', '', $xml),
                default => $xml.'<again/>',
            };
            file_put_contents($path, $xml);
            $reader = new \XMLReader();
            $reader->XML($xml, null, LIBXML_NONET);
            libxml_use_internal_errors(true);
            libxml_clear_errors();
            while (@$reader->read()) {
                continue;
            }
            $error = libxml_get_last_error();
            libxml_clear_errors();
            $is = $error === false || $error->level < LIBXML_ERR_ERROR;
            try {
                self::assertSame('item', WellFormed::item($path), $xml);
                self::assertTrue($is, $xml);
            } catch (UnusableInput $e) {
                self::assertFalse($is, "{$e->getMessage()}: {$xml}");
                $refused++;
            }
        }
        unlink($path);
        self::assertGreaterThan(150, $refused);
    }
}
