<?php

namespace Tests\Feature;

use App\Sheets\Files\Opening;
use App\Sheets\Files\Windows1252;
use Illuminate\Support\Facades\File;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use PhpOffice\PhpSpreadsheet\Cell\DataType;
use PhpOffice\PhpSpreadsheet\IOFactory;
use PhpOffice\PhpSpreadsheet\Spreadsheet;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Process\Process;
use Tests\TestCase;
use Vestigon\Core\Document\UnusableInput;

/** Files as others write them are read as what they hold. */
final class SheetFilesTest extends TestCase
{
    private const ROWS = [
        ['Name', 'Number', 'Text'],
        ['Deck "A", the first', '00702', "two\nlines"],
        ['日本 – Äußere', '120345678901', '=1+1'],
        ['', "it's", 'a;b|c'],
    ];

    private static string $folder;

    public static function setUpBeforeClass(): void
    {
        self::$folder = sys_get_temp_dir().'/sheet-files-'.getmypid();
        mkdir(self::$folder);
        (new Process(
            ['node', dirname(__DIR__).'/write-sheets.mjs', self::$folder],
            dirname(__DIR__, 2),
            input: (string) json_encode(self::ROWS),
        ))->mustRun();
    }

    public static function tearDownAfterClass(): void
    {
        array_map(unlink(...), (array) glob(self::$folder.'/*'));
        rmdir(self::$folder);
    }

    /** @return list<list<list<string>>> the rows of each table, without empty cells at the end */
    private static function read(string $path, string $name): array
    {
        $tables = [];
        foreach (Opening::tables($path, $name) as $table) {
            $rows = [];
            foreach ($table->rows() as $row) {
                $cells = array_map(strval(...), $row);
                while ($cells !== [] && $cells[count($cells) - 1] === '') {
                    array_pop($cells);
                }
                $rows[] = $cells;
            }
            $tables[] = $rows;
        }

        return $tables;
    }

    private static function written(string $name, string $content): string
    {
        $path = self::$folder."/{$name}";
        File::delete(File::glob("{$path}*"));
        file_put_contents($path, $content);

        return $path;
    }

    /** @return list<list<string>> */
    private static function readText(string $content, string $name = 'x.csv'): array
    {
        return self::read(self::written($name, $content), $name)[0];
    }

    /** @return iterable<string, array{string}> */
    public static function spectrum(): iterable
    {
        foreach ((array) glob(dirname(__DIR__, 2).'/node_modules/csv-spectrum/csvs/*.csv') as $file) {
            if (basename((string) $file) !== 'location_coordinates.csv') { // its answer is of another file
                yield basename((string) $file, '.csv') => [(string) $file];
            }
        }
    }

    /** The files of csv-spectrum 2.0.0, and what they hold (npm, BSD-2-Clause). */
    #[DataProvider('spectrum')]
    public function test_the_known_hard_files_are_read_as_their_authors_say(string $file): void
    {
        $answer = str_replace(['/csvs/', '.csv'], ['/json/', '.json'], $file);
        $expected = json_decode((string) file_get_contents($answer), true);
        $rows = self::readText((string) file_get_contents($file));
        $headings = array_shift($rows);

        self::assertSame(
            $expected,
            array_map(
                static fn (array $row): array => array_combine($headings, array_pad($row, count($headings), '')),
                $rows,
            ),
        );
    }

    /** RFC 4180, section 2, rules 1 to 7, with its own examples. */
    public function test_the_examples_of_rfc_4180(): void
    {
        $abc = [['aaa', 'bbb', 'ccc'], ['zzz', 'yyy', 'xxx']];

        self::assertSame($abc, self::readText("aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n"), '1');
        self::assertSame($abc, self::readText("aaa,bbb,ccc\r\nzzz,yyy,xxx"), '2');
        self::assertSame(
            [['field_name', 'field_name', 'field_name'], ...$abc],
            self::readText("field_name,field_name,field_name\r\naaa,bbb,ccc\r\nzzz,yyy,xxx\r\n"),
            '3',
        );
        self::assertSame([['aaa', 'bbb', 'ccc']], self::readText('aaa,bbb,ccc'), '4');
        self::assertSame($abc, self::readText("\"aaa\",\"bbb\",\"ccc\"\r\nzzz,yyy,xxx"), '5');
        self::assertSame(
            [['aaa', "b\r\nbb", 'ccc'], ['zzz', 'yyy', 'xxx']],
            self::readText("\"aaa\",\"b\r\nbb\",\"ccc\"\r\nzzz,yyy,xxx"),
            '6',
        );
        self::assertSame([['aaa', 'b"bb', 'ccc']], self::readText('"aaa","b""bb","ccc"'), '7');
    }

    /** OpenDocument 1.2 part 1, §9.1.5: covered cells, as office programs write them; a row of them alone too. */
    public function test_covered_cells_keep_their_places(): void
    {
        $book = new Spreadsheet();
        $book->getActiveSheet()
            ->fromArray([['North', null, 'a1'], [null, null, 'a2'], [], ['S', 'y', 'a3']])
            ->mergeCells('A1:B3');
        $path = self::$folder.'/covered.ods';
        IOFactory::createWriter($book, 'Ods')->save($path);
        $zip = new \ZipArchive();
        $zip->open($path);
        $content = (string) $zip->getFromName('content.xml');
        $cells = '<table:table-cell table:number-columns-repeated="2"/>';
        $covered = preg_replace(
            '~<table:table-cell(?=/| table:number-columns-rep)~',
            '<table:covered-table-cell',
            str_replace(
                '<table:table-row table:number-rows-repeated="1"/>',
                "<table:table-row>{$cells}</table:table-row>",
                $content,
            ),
        );
        self::assertNotSame($content, $covered);
        $zip->addFromString('content.xml', (string) $covered);
        $zip->close();

        self::assertSame(
            [[['North', 'North', 'a1'], ['North', 'North', 'a2'], ['North', 'North'], ['S', 'y', 'a3']]],
            self::read($path, 'covered.ods'),
        );
    }

    /** @return iterable<array{string}> */
    public static function kindsOfWorkbooks(): iterable
    {
        yield ['xlsx'];
        yield ['ods'];
    }

    /**
     * What a merged cell holds, each of its cells does (ECMA-376 part 1, §18.3.1.55; OpenDocument 1.2 part 1, §9.1.4
     * and §9.1.5), in files as phpspreadsheet writes them.
     */
    #[DataProvider('kindsOfWorkbooks')]
    public function test_merged_cells_all_hold_the_value(string $kind): void
    {
        $book = new Spreadsheet();
        $book->createSheet(0)->fromArray([['another', 'sheet']])->mergeCells('A1:B1')->setTitle('First');
        $sheet = $book->getSheet(1)->setTitle('Second');
        $sheet->fromArray([
            ['All of June', null, null, null],
            ['Campaign', 'Group', 'Ad', 'Text'],
            ['North', 'Decks', 'a1', 'x'],
            [null, null, 'a2', null],
            [null, 'Cabins', 'a3', 'y'],
            ['South', 'Decks', 'a4', 'z'],
        ]);
        foreach (['A1:D1', 'A3:A5', 'B3:B4', 'D3:D4'] as $area) {
            $sheet->mergeCells($area);
        }
        $path = self::$folder."/merged.{$kind}";
        IOFactory::createWriter($book, ucfirst($kind))->save($path);

        self::assertSame(
            [
                [['another', 'another']],
                [
                    ['All of June', 'All of June', 'All of June', 'All of June'],
                    ['Campaign', 'Group', 'Ad', 'Text'],
                    ['North', 'Decks', 'a1', 'x'],
                    ['North', 'Decks', 'a2', 'x'],
                    ['North', 'Cabins', 'a3', 'y'],
                    ['South', 'Decks', 'a4', 'z'],
                ],
            ],
            self::read($path, "merged.{$kind}"),
        );
    }

    /** @return iterable<string, array{string, string}> encoding, and what stands before the text */
    public static function encodings(): iterable
    {
        yield 'UTF-8' => ['UTF-8', ''];
        yield 'UTF-8 with its mark' => ['UTF-8', "\xEF\xBB\xBF"];
        yield 'UTF-16, little end first' => ['UTF-16LE', "\xFF\xFE"];
        yield 'UTF-16, big end first' => ['UTF-16BE', "\xFE\xFF"];
        yield 'UTF-16 without its mark, little' => ['UTF-16LE', ''];
        yield 'UTF-16 without its mark, big' => ['UTF-16BE', ''];
        yield 'Windows-1252' => ['Windows-1252', ''];
    }

    #[DataProvider('encodings')]
    public function test_encodings_are_told_apart(string $encoding, string $mark): void
    {
        $text = "Name;Wert\r\nÄußere Inseln;5 €\r\n".str_repeat("Fähre;1\r\n", 9000);
        $path = self::written('x.csv', $mark.mb_convert_encoding($text, $encoding, 'UTF-8'));
        $table = Opening::tables($path, 'x.csv')[0];

        self::assertSame($encoding, $table->form()->encoding);
        self::assertSame(';', $table->form()->delimiter);
        self::assertSame($encoding === 'Windows-1252', $table->form()->note !== null, 'that is said');
        $rows = iterator_to_array($table->rows());
        self::assertSame(['Äußere Inseln', '5 €'], $rows[1]);
        self::assertSame([9002, ['Fähre', '1']], [count($rows), $rows[9001]], 'also where a piece ends in a letter');
    }

    /**
     * As the C library's iconv has it; the five bytes that Windows-1252 leaves open are control characters of the same
     * number (WHATWG Encoding Standard, index-windows-1252, from memory).
     */
    public function test_every_byte_of_windows_1252_is_a_letter(): void
    {
        for ($byte = 0; $byte < 256; $byte++) {
            $letter = @iconv('WINDOWS-1252', 'UTF-8', chr($byte));
            self::assertSame(
                $letter === false || $letter === '' ? mb_chr($byte, 'UTF-8') : $letter,
                Windows1252::utf8(chr($byte)),
                dechex($byte),
            );
        }
    }

    /** @return iterable<string, array{string, string}> */
    public static function delimiters(): iterable
    {
        yield 'commas' => ["a,b\n1,2\n3,4", ','];
        yield 'semicolons, with commas in figures' => ["a;b\n1,5;2,5\n3,5;4,5\n", ';'];
        yield 'tabs' => ["a\tb\n1,2\t3\n4\t5", "\t"];
        yield 'bars' => ["a|b\n1|2", '|'];
        yield 'said in the first line' => ["sep=;\r\na,b;c\r\n1,2;3", ';'];
        yield 'one column' => ["a\nb\nc", ','];
        yield 'as many of both' => ["a,b;c\n1,2;3", ','];
    }

    #[DataProvider('delimiters')]
    public function test_the_delimiter_is_found(string $content, string $delimiter): void
    {
        $table = Opening::tables(self::written('x.csv', $content), 'x.csv')[0];

        self::assertSame($delimiter, $table->form()->delimiter);
        self::assertStringStartsWith('a', (string) iterator_to_array($table->rows())[0][0], 'sep= is no row');
    }

    public function test_ends_of_lines_may_be_of_any_kind_and_mixed(): void
    {
        self::assertSame([['a', 'b'], ['1', '2']], self::readText("a,b\r1,2\r"));
        self::assertSame([['a', 'b'], ['1', '2'], ['3', '4']], self::readText("a,b\r\n1,2\n3,4"));
        self::assertSame([['a', 'b'], [], ['1', '2']], self::readText("a,b\n\n1,2"), 'an empty row counts');
    }

    /** @return iterable<string, array{string}> */
    public static function workbooks(): iterable
    {
        $all = ['openspout xlsx', 'openspout ods', 'phpspreadsheet xlsx', 'phpspreadsheet ods', 'exceljs xlsx'];
        foreach ($all as $by) {
            yield $by => [$by];
        }
    }

    #[DataProvider('workbooks')]
    public function test_workbooks_of_several_writers_hold_the_same(string $by): void
    {
        [$library, $kind] = explode(' ', $by);
        $path = self::$folder."/x.{$kind}";
        match ($library) {
            'openspout' => self::byOpenspout($path, $kind),
            'phpspreadsheet' => self::byPhpSpreadsheet($path, ucfirst($kind)),
            'exceljs' => copy(self::$folder.'/node.xlsx', $path),
        };

        self::assertSame([self::ROWS], self::read($path, "x.{$kind}"));
        $file = self::$folder."/{$library}.{$kind}.gz";
        file_put_contents($file, gzencode((string) file_get_contents($path)));
        self::assertSame([self::ROWS], self::read($file, "x.{$kind}.gz"), 'also packed');
    }

    private static function byOpenspout(string $path, string $kind): void
    {
        $writer =
            $kind === 'ods' ? WriterEntityFactory::createODSWriter() : WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        foreach (self::ROWS as $row) {
            $writer->addRow(WriterEntityFactory::createRow(array_map(static function (string $text) {
                $cell = WriterEntityFactory::createCell($text);
                $cell->setType(\OpenSpout\Common\Entity\Cell::TYPE_STRING);

                return $cell;
            }, $row)));
        }
        $writer->close();
    }

    private static function byPhpSpreadsheet(string $path, string $kind): void
    {
        $book = new Spreadsheet();
        foreach (self::ROWS as $y => $row) {
            foreach ($row as $x => $text) {
                $book->getActiveSheet()->setCellValueExplicit([$x + 1, $y + 1], $text, DataType::TYPE_STRING);
            }
        }
        IOFactory::createWriter($book, $kind)->save($path);
    }

    public function test_text_of_other_writers_is_the_same(): void
    {
        self::assertSame(self::ROWS, self::read(self::$folder.'/node.csv', 'node.csv')[0], 'exceljs');
        $php = fopen('php://memory', 'w+b');
        foreach (self::ROWS as $row) {
            fputcsv($php, $row, escape: '');
        }
        rewind($php);
        self::assertSame(self::ROWS, self::readText((string) stream_get_contents($php)), 'PHP');
    }

    public function test_numbers_of_a_workbook_are_told_from_text(): void
    {
        $book = new Spreadsheet();
        $book->getActiveSheet()->fromArray([['id', 'cost'], [1234567890123456, 0.5], ['00702', 71]]);
        $book->getActiveSheet()->getCell('A3')->setValueExplicit('00702', DataType::TYPE_STRING);
        IOFactory::createWriter($book, 'Xlsx')->save(self::$folder.'/n.xlsx');
        $rows = iterator_to_array(Opening::tables(self::$folder.'/n.xlsx', 'n.xlsx')[0]->rows());

        self::assertFalse(is_string($rows[1][0]), 'it may have lost digits');
        self::assertSame([0.5, '00702'], [$rows[1][1], $rows[2][0]]);
    }

    public function test_several_sheets_and_several_files_in_one(): void
    {
        $book = new Spreadsheet();
        $book->getActiveSheet()->setTitle('Ads')->fromArray([['a', 'b']]);
        $book->createSheet()->setTitle('Nothing');
        $book->createSheet()->setTitle('Groups')->fromArray([['c', 'd'], [], ['1', '2']]);
        IOFactory::createWriter($book, 'Xlsx')->save(self::$folder.'/b.xlsx');
        $tables = Opening::tables(self::$folder.'/b.xlsx', 'b.xlsx');
        self::assertSame(['Ads', 'Groups'], array_map(static fn ($t): string => $t->title(), $tables));
        self::assertCount(3, iterator_to_array($tables[1]->rows()), 'rows count as a person sees them');

        $zip = new \ZipArchive();
        $zip->open(self::$folder.'/z.zip', \ZipArchive::CREATE);
        $zip->addFromString('one/ads.csv', "a,b\n1,2");
        $zip->addFromString('groups.tsv', "c\td\n3\t4");
        $zip->addFromString('__MACOSX/ads.csv', 'x');
        $zip->close();
        $tables = Opening::tables(self::$folder.'/z.zip', 'z.zip');
        self::assertSame(['ads', 'groups'], array_map(static fn ($t): string => $t->title(), $tables));
    }

    public function test_what_unpacks_to_too_much_is_refused_before_it_does(): void
    {
        config(['limits.unpacked' => 1 << 20]);
        $zip = new \ZipArchive();
        $zip->open(self::$folder.'/bomb.zip', \ZipArchive::CREATE);
        $zip->addFromString('a.csv', str_repeat('a', 3 << 20));
        $zip->close();
        $packed = self::written('bomb.gz', (string) gzencode(str_repeat('a', 3 << 20)));
        foreach (['bomb.zip' => self::$folder.'/bomb.zip', 'bomb.gz' => $packed] as $name => $path) {
            try {
                Opening::tables($path, $name);
                self::fail("{$name} was taken");
            } catch (UnusableInput $e) {
                self::assertStringContainsString('unpacks to more than 1 MB', $e->getMessage());
            }
        }
    }

    public function test_a_delimiter_is_not_taken_for_one_that_would_make_too_many_columns(): void
    {
        $rows = "a;b\n\"".str_repeat('x,', 600)."\";2\n".str_repeat('y,', 600).";4\n";

        self::assertSame('4', self::readText($rows)[2][1]);
    }

    public function test_a_workbook_with_too_many_columns_says_so(): void
    {
        $book = new Spreadsheet();
        $book->getActiveSheet()->fromArray([['a', 'b'], range(1, 600)]);
        IOFactory::createWriter($book, 'Xlsx')->save(self::$folder.'/w.xlsx');
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('of w.xlsx has 600 columns; at most 500 can be taken');
        iterator_to_array(Opening::tables(self::$folder.'/w.xlsx', 'w.xlsx')[0]->rows());
    }

    /** No entity of a workbook's XML reaches for a file, or grows (OWASP, "XML External Entity Prevention", from memory). */
    public function test_entities_in_a_workbook_reach_for_nothing(): void
    {
        file_put_contents(self::$folder.'/secret.txt', 'not for sheets');
        foreach (
            [
                'SYSTEM "file://'.self::$folder.'/secret.txt"',
                '"'.str_repeat('&b;', 1000).'"> <!ENTITY b "'.str_repeat('x', 1000).'"',
            ] as $entity
        ) {
            $book = new Spreadsheet();
            $book->getActiveSheet()->fromArray([['MARK', 'b'], ['c', 'd']]);
            $path = self::$folder.'/e.xlsx';
            IOFactory::createWriter($book, 'Xlsx')->save($path);
            $zip = new \ZipArchive();
            $zip->open($path);
            $xml = (string) $zip->getFromName('xl/sharedStrings.xml');
            $xml = str_replace(['?>', 'MARK'], ["?><!DOCTYPE sst [<!ENTITY a {$entity}>]>", '&a;'], $xml);
            $zip->addFromString('xl/sharedStrings.xml', $xml);
            $zip->close();
            try {
                $cells = json_encode(self::read($path, 'e.xlsx'));
                self::assertStringNotContainsString('not for sheets', (string) $cells);
                self::assertLessThan(10_000, strlen((string) $cells));
            } catch (UnusableInput $e) {
                self::assertStringContainsString('can\'t be read', $e->getMessage());
            }
        }
    }

    public function test_a_locked_zip_says_so(): void
    {
        $zip = new \ZipArchive();
        $zip->open(self::$folder.'/l.zip', \ZipArchive::CREATE);
        $zip->addFromString('a.csv', 'a,b');
        $zip->setEncryptionName('a.csv', \ZipArchive::EM_AES_256, 'secret');
        $zip->close();
        $this->expectException(UnusableInput::class);
        $this->expectExceptionMessage('locked with a password');
        Opening::tables(self::$folder.'/l.zip', 'l.zip');
    }
}
