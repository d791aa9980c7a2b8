<?php

namespace Tests\Feature;

use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Connection;
use App\Models\Text;
use App\Models\WriteState;
use App\Sheets\Sheet;
use Illuminate\Support\Facades\Http;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** A platform that takes texts only in sheets: only what changes goes out, and the result comes back in. */
final class SheetTest extends TestCase
{
    private Change $change;

    private int $mapping;

    protected function setUp(): void
    {
        parent::setUp();
        $account = $this->imported('OG-3', 'oldgate-portal', 'gate-4402');
        Connection::query()->update(['writes_by' => 'sheet']);
        $this->planned();
        $this->change = $this->inLine($account);
        $this->mapping = $this->api('POST', '/mappings', [
            'name' => 'Desk',
            'dialect' => 'oldgate-portal',
            'columns' => [
                'id' => 'Advert no.',
                'name' => 'Title',
                'landing' => 'Link',
                'result' => 'Outcome',
                'message' => 'Remark',
            ],
        ])
            ->assertStatus(201)
            ->json('id');
    }

    private function due(): string
    {
        $this->api('POST', "/changes/{$this->change->id}/application")->assertStatus(202);
        self::assertSame(
            ChangeStatus::HandedOut,
            $this->change->refresh()->status,
            (string) $this->change->problem,
        );

        return (string) $this->api('GET', "/changes/{$this->change->id}/sheet?mapping={$this->mapping}&as=csv")
            ->assertOk()
            ->streamedContent();
    }

    /** The portal's desk takes the sheet and gives it back with the outcomes. */
    private function desk(string $sheet): string
    {
        return Http::withBody($sheet, 'text/csv')
            ->post('http://oldgate.localhost:'.env('STANDINS_PORT').'/desk')
            ->throw()
            ->body();
    }

    private function back(string $sheet): \Illuminate\Testing\TestResponse
    {
        return $this->api('POST', "/changes/{$this->change->id}/sheet", [
            'mapping' => $this->mapping,
            'name' => 'outcome.csv',
            'content' => base64_encode($sheet),
        ]);
    }

    public function test_the_trial_and_the_rest_go_out_come_back_and_are_read_back(): void
    {
        $writes = $this->change->writes()->count();
        $trial = $this->due();
        self::assertSame("\"Advert no.\",Title,Link\r\n", strtok($trial, "\n")."\n", 'only what changes');
        $lines = count(array_filter(explode("\n", $trial)));
        $this->back($this->desk($trial))
            ->assertOk()
            ->assertJson(['taken' => $lines - 1, 'refused' => 0]);
        self::assertSame(
            [ChangeStatus::Tried, true],
            [$this->change->refresh()->status, $this->change->trial['ok'] ?? null],
            json_encode($this->change->trial),
        );

        $rest = $this->due();
        $this->back($this->desk($rest))->assertOk();
        self::assertSame(ChangeStatus::Done, $this->change->refresh()->status, (string) $this->change->problem);
        self::assertSame($writes, $this->change->writes()->where('state', WriteState::Verified)->count());
        self::assertSame(
            $this->change->writes()->where('kind', 'landing')->orderByDesc('position')->value('after'),
            Text::query()
                ->where('node_id', $this->change->writes()->orderByDesc('position')->value('node_id'))
                ->whereNull('until')
                ->value('text'),
        );
    }

    public function test_what_the_portal_refuses_fails_alone_and_says_why(): void
    {
        $sheet = $this->due();
        $outcome = preg_replace('/,Done,(""|)\r?$/m', ',Refused,"too long"', $this->desk($sheet), 1);
        $this->back((string) $outcome)->assertOk()->assertJsonPath('refused', 1);
        self::assertStringContainsString(
            'too long',
            (string) $this->change->writes()->where('state', WriteState::Failed)->value('problem'),
        );
    }

    public function test_bad_sheets_are_explained(): void
    {
        $this->due();
        $this->back("Number,Outcome\r\n1,Done\r\n")
            ->assertStatus(422)
            ->assertJsonPath(
                'message',
                'Outcome.csv has no column “Advert no.”; the mapping “Desk” says that it holds the numbers.',
            );
        $this->back('')->assertStatus(422);
        $this->back("\xff\xfe")
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'not UTF-8'));
        $this->back("Advert no.,Outcome\r\nnone,Done\r\n")
            ->assertOk()
            ->assertJson([
                'taken' => 0,
                'unknown' => 1,
                'problems' => ['none is not waiting for an answer; its row was left out.'],
            ]);
    }

    /** @return iterable<string, array{string}> */
    public static function kinds(): iterable
    {
        yield 'csv' => ['csv'];
        yield 'tsv' => ['tsv'];
        yield 'xlsx' => ['xlsx'];
    }

    /** No cell is a formula, and what was written is read back as it was. */
    #[DataProvider('kinds')]
    public function test_cells_survive_and_are_never_formulas(string $kind): void
    {
        $rows = [
            ['1', '=HYPERLINK("http://x")', "a\tb", 'say "hi", twice'],
            ['2', '+1', '-2', "@x\nline"],
            ['0042', "'=1", 'ä 日本', 'https://v.example/?a=1&b=2'],
        ];
        $file = Sheet::write($kind, ['number', 'a', 'b', 'c'], $rows);
        $content = (string) file_get_contents($file);
        unlink($file);
        $read = iterator_to_array(Sheet::read("x.{$kind}", $content), false);
        self::assertSame(
            [['number', 'a', 'b', 'c'], ...$rows],
            array_map(static fn (array $r): array => array_slice($r, 0, 4), $read),
        );
        if ($kind !== 'xlsx') {
            self::assertDoesNotMatchRegularExpression(
                '/(^|[,\t])"?[=+@-]/m',
                str_replace("@x\nline", '', $content),
            );
        } else {
            $zip = new \ZipArchive();
            file_put_contents($path = tempnam(sys_get_temp_dir(), 'x'), $content);
            $zip->open($path);
            self::assertStringNotContainsString(
                '<f',
                (string) $zip->getFromName('xl/worksheets/sheet1.xml'),
                'ECMA-376: a formula is an f element',
            );
            unlink($path);
        }
    }

    /** An XML entity that names a file is not read: the workbook is refused or empty. */
    public function test_an_entity_in_a_workbook_reads_no_file(): void
    {
        $file = Sheet::write('xlsx', ['number'], [['MARK']]);
        $zip = new \ZipArchive();
        $zip->open($file);
        $strings = (string) $zip->getFromName('xl/worksheets/sheet1.xml');
        self::assertStringContainsString('MARK', $strings);
        $zip->addFromString(
            'xl/worksheets/sheet1.xml',
            str_replace(
                ['?>', 'MARK'],
                ['?><!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/hostname">]>', '&e;'],
                $strings,
            ),
        );
        $zip->close();
        $content = (string) file_get_contents($file);
        unlink($file);
        try {
            $read = json_encode(iterator_to_array(Sheet::read('x.xlsx', $content), false));
        } catch (\RuntimeException $e) {
            $read = $e->getMessage();
        }
        self::assertStringNotContainsString(trim((string) file_get_contents('/etc/hostname')), (string) $read);
    }

    /** A workbook of one sheet with these rows of XML, by hand: writers would not write them. */
    private static function workbook(string $rows): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'book');
        $zip = new \ZipArchive();
        $zip->open($file, \ZipArchive::OVERWRITE);
        $zip->addFromString(
            '[Content_Types].xml',
            '<?xml version="1.0"?><Types '
                .'xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Override '
                .'PartName="/xl/workbook.xml" '
                .'ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/></Types>',
        );
        $zip->addFromString(
            'xl/workbook.xml',
            '<?xml version="1.0"?><workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" '
                .'xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet '
                .'name="S" sheetId="1" r:id="rId1"/></sheets></workbook>',
        );
        $zip->addFromString(
            'xl/_rels/workbook.xml.rels',
            '<?xml version="1.0"?><Relationships '
                .'xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" '
                .'Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" '
                .'Target="worksheets/sheet1.xml"/></Relationships>',
        );
        $zip->addFromString(
            'xl/worksheets/sheet1.xml',
            '<?xml version="1.0"?><worksheet '
                .'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">'
                ."<sheetData>{$rows}</sheetData></worksheet>",
        );
        $zip->close();
        $content = (string) file_get_contents($file);
        unlink($file);

        return $content;
    }

    /** @return iterable<string, array{string, string}> */
    public static function badWorkbooks(): iterable
    {
        yield 'a cell in the last column of the last row' => [
            '<row r="1048576"><c r="XFD1048576" t="inlineStr"><is><t>x</t></is></c></row>',
            'more than 500 columns',
        ];
        yield 'very many rows' => [
            str_repeat('<row><c t="inlineStr"><is><t>x</t></is></c></row>', 200_002),
            'more than 200,000 rows',
        ];
        yield 'no workbook' => ['<row', 'can’t be read'];
    }

    #[DataProvider('badWorkbooks')]
    public function test_a_workbook_that_would_fill_the_memory_is_left_in_time(string $rows, string $why): void
    {
        $content = self::workbook($rows);
        memory_reset_peak_usage();
        $before = memory_get_usage();
        try {
            foreach (Sheet::read('x.xlsx', $content) as $row) {
                self::assertLessThan(600, count($row));
            }
            self::fail('it was read');
        } catch (\Vestigon\Core\Document\UnusableInput $e) {
            self::assertStringContainsString($why, $e->getMessage());
        }
        self::assertLessThan(32 << 20, memory_get_peak_usage() - $before);
    }

    /** Reference: phpoffice/phpspreadsheet reads what we write, and we read what it writes. */
    public function test_another_library_and_ours_read_each_others_workbooks(): void
    {
        $rows = [['number', 'text'], ['0042', '=1+1'], ['ä 日本', "a\nb"]];
        $file = Sheet::write('xlsx', $rows[0], array_slice($rows, 1));
        rename($file, "{$file}.xlsx");
        self::assertSame(
            $rows,
            \PhpOffice\PhpSpreadsheet\IOFactory::createReader('Xlsx')
                ->load("{$file}.xlsx")
                ->getActiveSheet()
                ->toArray(null, false, false),
        );
        unlink("{$file}.xlsx");

        $book = new \PhpOffice\PhpSpreadsheet\Spreadsheet();
        foreach ($rows as $r => $row) {
            foreach ($row as $c => $cell) {
                $book
                    ->getActiveSheet()
                    ->setCellValueExplicit(
                        [$c + 1, $r + 1],
                        $cell,
                        \PhpOffice\PhpSpreadsheet\Cell\DataType::TYPE_STRING,
                    );
            }
        }
        $theirs = (string) tempnam(sys_get_temp_dir(), 'book');
        (new \PhpOffice\PhpSpreadsheet\Writer\Xlsx($book))->save($theirs);
        self::assertSame(
            $rows,
            iterator_to_array(Sheet::read('x.xlsx', (string) file_get_contents($theirs)), false),
        );
        unlink($theirs);
    }
}
