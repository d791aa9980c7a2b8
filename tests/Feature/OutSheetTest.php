<?php

namespace Tests\Feature;

use App\Models\Account;
use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Node;
use App\Models\Text;
use App\Sheets\Files\Opening;
use Illuminate\Support\Facades\Http;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Contract;
use Tests\SheetsIn;
use Tests\TestCase;

/** A change of an account that came as sheets goes out in their shape, and read back in it makes exactly its writes. */
final class OutSheetTest extends TestCase
{
    use SheetsIn;

    private const ADS = [
        ['Report of September'],
        [],
        [
            'Campaign ID',
            'Campaign',
            'Ad group ID',
            'Ad group',
            'Ad ID',
            'Ad',
            'Score',
            'Final URL',
            'Tracking',
            'URL suffix',
        ],
        ['71', 'Isles', '702', 'Foot', '7031', '=Deck A', '5', 'https://velmar.example/a', '', 'utm_source=x'],
        ['71', 'Isles', '702', 'Foot', '7032', 'Deck “B”', '6', 'https://velmar.example/b', '{landing}?a=1', ''],
        ['72', 'Coves', '703', 'Car', '7033', 'Fähre', '7', 'https://velmar.example/c', '', ''],
        ['Total', '', '', '', '', '', '18', '', '', ''],
    ];

    protected function setUp(): void
    {
        parent::setUp();
        $this->planned();
    }

    private static function csv(array $rows, string $between = ',', string $encoding = 'UTF-8'): string
    {
        $out = '';
        foreach ($rows as $row) {
            $out .= implode(
                $between,
                array_map(static fn (string $c): string => '"'.str_replace('"', '""', $c).'"', $row),
            )."\r\n";
        }

        return mb_convert_encoding($out, $encoding, 'UTF-8');
    }

    private function broughtIn(string $content, string $name = 'ads.csv'): Account
    {
        return $this->begun($this->read($this->dropped([$name => $content])));
    }

    /** Puts other suffixes on two ads; what stands above them stays. */
    private function changed(Account $account, array $texts): Change
    {
        $id = $this->api('POST', '/changes', [
            'account' => $account->id,
            'title' => 'Other texts',
            'texts' => array_map(
                fn (array $t): array => [
                    'node' => Node::query()->where('external_id', $t[0])->value('id'),
                    'slot' => $t[1],
                    'text' => $t[2],
                ],
                $texts,
            ),
        ])
            ->assertStatus(202)
            ->json('id');

        return Change::query()->findOrFail($id);
    }

    private function handedOut(Change $change): void
    {
        $this->api('POST', "/changes/{$change->id}/application", ['draft' => $change->refresh()->draft])
            ->assertStatus(202);
        self::assertSame(ChangeStatus::HandedOut, $change->refresh()->status, (string) $change->problem);
    }

    private function sheet(Change $change): string
    {
        return $this->api('GET', "/changes/{$change->id}/sheet")->assertOk()->streamedContent();
    }

    /** @return list<list<string>> */
    private static function rows(string $content, string $name): array
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'out');
        file_put_contents($path, $content);
        $rows = [];
        foreach (Opening::tables($path, $name)[0]->rows() as $row) {
            $rows[] = array_map(strval(...), $row);
        }
        array_map(unlink(...), (array) glob("{$path}*"));

        return $rows;
    }

    public function test_a_change_goes_out_in_the_shape_that_the_account_came_in(): void
    {
        $account = $this->broughtIn(self::csv(self::ADS, ';', 'Windows-1252'));
        $change = $this->changed($account, [
            ['7031', 'suffix', 'utm_source=y&k=ü'],
            ['7033', 'template', '{landing}?b=1'],
        ]);
        $this->handedOut($change);
        $content = $this->sheet($change);

        self::assertSame(
            "\"Report of September\"\r\n\r\n\"Ad ID\";Tracking;\"URL suffix\"\r\n"
                ."7031;;utm_source=y&k=ü\r\n7033;{landing}?b=1;\r\n",
            mb_convert_encoding($content, 'UTF-8', 'Windows-1252'),
            'preamble, headings and delimiter as they came; only what tells a row and what changes',
        );
    }

    public function test_read_back_in_it_makes_exactly_the_writes(): void
    {
        $account = $this->broughtIn(self::csv(self::ADS));
        $change = $this->changed($account, [['7031', 'suffix', '=x'], ['7032', 'template', null]]);
        $this->handedOut($change);
        $before = Text::query()->whereNull('until')->count();

        $intake = $this->dropped(['ads.csv' => $this->sheet($change)], ['account' => $account->id]);
        self::assertSame('ad', $intake['tables'][0]['level']);
        $read = $this->read($intake);
        self::assertSame(2, $read['counts']['changed']);
        $this->begun($read);
        self::assertSame('=x', self::texts('7031')['suffix']);
        self::assertArrayNotHasKey('template', self::texts('7032'));
        self::assertSame('https://velmar.example/b', self::texts('7032')['landing'], 'all else stays');
        self::assertSame($before - 1, Text::query()->whereNull('until')->count());
    }

    public function test_an_account_is_brought_in_line_from_its_sheets_to_the_sheet_to_upload(): void
    {
        $rows = self::ADS;
        foreach ($rows as $i => $row) {
            $rows[$i] = match (true) {
                $i === 2 => [...$row, 'Campaign type'],
                count($row) > 1 && $row[0] !== 'Total' => [...$row, 'text'],
                default => $row,
            };
        }
        $account = $this->broughtIn(self::csv($rows));
        $change = $this->inLine($account)->refresh();
        self::assertSame(
            ['ad'],
            Node::query()->whereIn('id', $change->writes()->select('node_id'))->distinct()->pluck('level')->all(),
            'its sheet has rows of ads only, so only ads are written to',
        );
        $this->handedOut($change);
        $rows = self::rows($this->sheet($change), 'out.csv');
        self::assertSame(['Ad ID', 'URL suffix'], $rows[2]);
        $this->api('POST', "/changes/{$change->id}/sheet/taken")->assertOk();
        self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
        $export = array_slice($rows, 2); // the platform holds it now
        $this->begun($this->read($this->dropped(['ads.csv' => self::csv($export)], ['account' => $account->id])));
        self::assertSame(['proven'], $account->nodes()->where('is_ad', true)->distinct()->pluck('state')->all());
    }

    public function test_what_has_no_column_is_said_before_it_is_begun(): void
    {
        $account = $this->broughtIn(self::csv(self::ADS));
        $change = $this->changed($account, [['71', 'suffix', 'c=1']]);
        $this->api('POST', "/changes/{$change->id}/application", ['draft' => $change->refresh()->draft])
            ->assertStatus(422)
            ->assertJsonPath(
                'message',
                'The sheets that Harbour came in have no column for the suffix at Campaign level. Bring an export in '
                    .'that has one, then work the change out again.',
            );
        self::assertSame(ChangeStatus::Ready, $change->refresh()->status);
    }

    public function test_what_the_platform_says_of_it_is_taken_at_its_word(): void
    {
        $account = $this->broughtIn(self::csv(self::ADS));
        $change = $this->changed($account, [['7031', 'suffix', 'a=1'], ['7032', 'suffix', 'b=1']]);
        $this->handedOut($change);
        $rows = self::rows($this->sheet($change), 'out.csv');
        $rows[2] = [...$rows[2], 'Result', 'Remark'];
        $rows[3] = [...$rows[3], 'OK', ''];
        $rows[4] = [...$rows[4], 'refused', 'too long'];
        $answer = $this->api('POST', "/changes/{$change->id}/sheet", [
            'name' => 'result.csv',
            'content' => base64_encode(self::csv($rows)),
        ]);
        Contract::holds($answer, 'post', '/clients/{client}/changes/{change}/sheet');
        self::assertSame([1, 1], [$answer->json('taken'), $answer->json('refused')]);
        self::assertSame(ChangeStatus::Partly, $change->refresh()->status);
        self::assertSame('a=1', self::texts('7031')['suffix']);
        self::assertArrayNotHasKey('suffix', self::texts('7032'));
        $why = (string) $change->writes()->where('state', 'failed')->value('problem');
        self::assertStringContainsString('refused too long', $why);
    }

    public function test_its_platform_is_asked_for_nothing(): void
    {
        $account = $this->broughtIn(self::csv(self::ADS));
        $ad = $account->nodes()->where('is_ad', true)->firstOrFail();
        Http::fake();
        $this->api('POST', "/nodes/{$ad->id}/click")
            ->assertStatus(502)
            ->assertJsonPath(
                'message',
                'Harbour (sheets) comes by sheet; it can\'t be asked anything. Bring its next export.',
            );
        Http::assertNothingSent();
    }

    public function test_without_outcomes_what_holds_our_text_was_taken(): void
    {
        $account = $this->broughtIn(self::csv(self::ADS));
        $change = $this->changed($account, [['7031', 'suffix', 'a=1'], ['7032', 'suffix', 'b=1']]);
        $this->handedOut($change);
        $rows = self::ADS;
        [$rows[3][9], $rows[4][9]] = ['a=1', 'other'];
        $told = $this->api('POST', "/changes/{$change->id}/sheet", [
            'name' => 'ads.csv',
            'content' => base64_encode(self::csv($rows)),
        ])->assertOk();

        self::assertSame([1, 1, 1], [$told->json('taken'), $told->json('refused'), $told->json('unknown')]);
        self::assertSame(['7033 is not waiting for an answer; its row was left out.'], $told->json('problems'));
    }

    public function test_a_person_says_that_all_was_taken_and_it_can_be_taken_back(): void
    {
        $account = $this->broughtIn(self::csv(self::ADS));
        $change = $this->changed($account, [['7031', 'suffix', 'a=1'], ['7033', 'suffix', 'c=1']]);
        $this->handedOut($change);
        $taken = $this->api('POST', "/changes/{$change->id}/sheet/taken");
        Contract::holds($taken, 'post', '/clients/{client}/changes/{change}/sheet/taken');
        self::assertSame(2, $taken->json('taken'));
        self::assertSame(ChangeStatus::Done, $change->refresh()->status, (string) $change->problem);
        self::assertSame('c=1', self::texts('7033')['suffix']);
        $this->api('POST', "/changes/{$change->id}/sheet/taken")->assertStatus(422);

        $back = $this->api('POST', "/changes/{$change->id}/reversal")->assertStatus(202)->json('id');
        $back = Change::query()->findOrFail($back);
        $this->handedOut($back);
        self::assertSame(
            [['7031', 'utm_source=x'], ['7033', '']],
            array_slice(self::rows($this->sheet($back), 'x.csv'), 3),
        );
    }

    public function test_a_name_goes_out_where_a_row_is_told_by_its_number(): void
    {
        $account = $this->broughtIn(self::csv(self::ADS));
        $change = $this->changed($account, [['7031', 'name', 'Deck Z']]);
        $this->handedOut($change);
        $rows = self::rows($this->sheet($change), 'x.csv');
        self::assertSame([['Ad ID', 'Ad'], ['7031', 'Deck Z']], array_slice($rows, 2));
        $this->api('POST', "/changes/{$change->id}/sheet", [
            'name' => 'ads.csv',
            'content' => base64_encode($this->sheet($change)),
        ])->assertJsonPath('taken', 1);
        self::assertSame('Deck Z', Node::query()->where('external_id', '7031')->value('name'));

        // without numbers another name would be another element
        $rows = array_map(static fn (array $r): array => array_values(
            array_diff_key($r, [0 => 1, 2 => 1, 4 => 1, 6 => 1]),
        ), self::ADS);
        $byNames = $this->begun($this->read($this->dropped(['names.csv' => self::csv($rows)], ['number' => 'NQ-901'])));
        $ad = $byNames->nodes()->where('name', 'Fähre')->firstOrFail();
        $id = $this->api('POST', '/changes', [
            'account' => $byNames->id,
            'title' => 'Rename',
            'texts' => [['node' => $ad->id, 'slot' => 'name', 'text' => 'Ferry']],
        ])->assertStatus(202)->json('id');
        $this->api('POST', "/changes/{$id}/application", ['draft' => 1])
            ->assertStatus(422)
            ->assertJsonPath('message', static fn (string $m): bool => str_contains($m, 'the name at Ad level'));
    }

    /** @return iterable<string, array{string}> */
    public static function kinds(): iterable
    {
        yield 'XLSX' => ['xlsx'];
        yield 'ODS' => ['ods'];
    }

    #[DataProvider('kinds')]
    public function test_a_workbook_goes_out_as_a_workbook(string $kind): void
    {
        $account = $this->broughtIn($this->workbook($kind, self::ADS), "ads.{$kind}");
        $change = $this->changed($account, [['7031', 'suffix', '=1+1']]);
        $this->handedOut($change);
        $answer = $this->api('GET', "/changes/{$change->id}/sheet")->assertOk();

        self::assertStringEndsWith(".{$kind}", (string) $answer->headers->get('Content-Disposition'));
        self::assertSame(['7031', '=1+1'], self::rows($answer->streamedContent(), "x.{$kind}")[3]);
    }

    public function test_tables_of_several_files_go_out_together(): void
    {
        $account = $this->begun($this->read($this->dropped([
            'groups.csv' => self::csv([
                ['Ad group ID', 'Ad group', 'Campaign ID', 'URL suffix'],
                ['702', 'Foot', '71', ''],
            ]),
            'ads.csv' => self::csv([['Ad ID', 'Ad group ID', 'URL suffix'], ['9', '702', '']]),
        ])));
        $change = $this->changed($account, [['702', 'suffix', 'g=1'], ['9', 'suffix', 'a=1']]);
        $this->handedOut($change);
        $answer = $this->api('GET', "/changes/{$change->id}/sheet")->assertOk();
        self::assertSame('application/zip', $answer->headers->get('Content-Type'));
        $path = (string) tempnam(sys_get_temp_dir(), 'zip');
        file_put_contents($path, $answer->streamedContent());
        $zip = new \ZipArchive();
        $zip->open($path);
        self::assertSame("\"Ad group ID\",\"URL suffix\"\r\n702,g=1\r\n", $zip->getFromName('groups.csv'));
        self::assertSame("\"Ad ID\",\"URL suffix\"\r\n9,a=1\r\n", $zip->getFromName('ads.csv'));
        $zip->close();
        unlink($path);
    }
}
