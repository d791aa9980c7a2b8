<?php

namespace Tests\Feature;

use App\Models\Collector;
use App\Models\SiteFile;
use App\Models\SiteFileState;
use Illuminate\Support\Facades\DB;
use PhpOffice\PhpSpreadsheet\IOFactory;
use PhpOffice\PhpSpreadsheet\Spreadsheet;
use Tests\TestCase;

/** Orders and page views come in as a sheet. */
final class OrderSheetTest extends TestCase
{
    private const SHEET = "Shop report\nOrder ID;Ordered at;Revenue;Currency;nqcid;Goal\n"
        ."T1;2026-10-05 09:00;1.204,50;;Q7f;Booking\n"
        ."T2;05.10.2026;3,5;USD;;Booking\n"
        ."T3;2026-10-05T09:00:00+00:00;;;;\n"
        ."T1;2026-10-06 10:00;-4,50;;;\n"
        .";2026-10-05 09:00;1;;;\n"
        ."T5;some day;1;;;\n"
        ."T6;2026-10-05 09:00;many;;;\n"
        ."T7;2026-07-01 09:00;1;;;\n";

    private Collector $site;

    protected function setUp(): void
    {
        parent::setUp();
        $this->site = $this->client
            ->collectors()
            ->create(['site' => 'Shop', 'hosts' => ['shop.example'], 'key' => 'k']);
        $this->client->update(['time_zone' => 'Europe/Berlin']);
        $this->travelTo('2026-10-20T08:00:00Z');
    }

    private function address(int $file): string
    {
        return "/sites/{$this->site->id}/files/{$file}";
    }

    private function putIn(string $content, string $name = 'orders.csv'): int
    {
        $body = ['name' => $name, 'content' => base64_encode($content), 'kind' => 'events'];

        return $this->api('POST', "/sites/{$this->site->id}/files", $body)->assertStatus(201)->json('id');
    }

    /** @return array<string, mixed> */
    private function told(int $file): array
    {
        return collect($this->api('GET', "/sites/{$this->site->id}/files")->json('items'))->firstWhere('id', $file);
    }

    /** @return array<string, mixed> what became of it as it is understood */
    private function taken(int $file): array
    {
        self::assertSame('asked', $this->told($file)['state']);
        $this->api('POST', "{$this->address($file)}/reading")->assertOk();

        return $this->told($file);
    }

    public function test_each_order_counts_once_however_often_it_comes(): void
    {
        $this->imported();
        $told = $this->taken($this->putIn(self::SHEET));

        self::assertSame(['read', 8, 4], [$told['state'], $told['lines'], $told['taken']]);
        self::assertSame(['no-order' => 1, 'no-time' => 1, 'no-value' => 1, 'too-late' => 1], $told['leftOut']);
        $again = $this->told($this->putIn(self::SHEET));
        self::assertSame(['read', 0], [$again['state'], $again['taken']], 'its columns and all of it are known');
        $this->artisan('arrivals:read')->assertSuccessful();
        self::assertSame(
            [
                'T1 2026-10-05 07:00:00.000 120450 EUR Q7f Booking',
                'T2 2026-10-05 10:00:00.000 350 USD  Booking',
                'T3 2026-10-05 09:00:00.000    ',
            ],
            DB::table('conversions')
                ->orderBy('order_number')
                ->get(['order_number', 'at', 'value', 'currency', 'click_id', 'name'])
                ->map(static fn (object $a): string => implode(' ', (array) $a))->all(),
        );
        $all = ['by' => [], 'from' => '2026-10-05', 'to' => '2026-10-05'];
        $now = $this->api('POST', '/results', $all)->json('total.now');
        self::assertSame([3, 120_450, 120_000], [$now['conversions'], $now['revenue']['EUR'], $now['net']['EUR']]);
    }

    public function test_what_is_understood_is_seen_before_anything_is_taken(): void
    {
        $this->imported();
        $file = $this->putIn(self::SHEET);
        $table = $this->api('GET', $this->address($file))->assertOk()->json('tables.0');

        self::assertSame(0, DB::table('conversions')->count());
        self::assertSame([true, 1], [$table['use'], $table['headingRow']]);
        self::assertSame([',', null], [$table['decimal'], $table['days']]);
        self::assertSame(
            ['order likely', 'at likely', 'value likely', 'currency sure', 'click likely', 'name likely'],
            array_map(static fn (array $c): string => "{$c['means']} {$c['certainty']}", $table['columns']),
        );
        self::assertSame(['T1', '2026-10-05 09:00', '1.204,50', '', 'Q7f', 'Booking'], $table['rows'][0]);
        self::assertSame(120_450, $table['understood'][0]['value']);
        self::assertSame('refund', $table['understood'][3]['is']);
        self::assertSame('no-order', $table['understood'][4]['is']);
        self::assertSame(
            ['convert' => 4, 'refund' => 1, 'no-order' => 1, 'no-time' => 1, 'no-value' => 1],
            $table['counts'],
        );
    }

    public function test_columns_of_no_known_word_are_said_by_a_person_and_known_from_then_on(): void
    {
        $sheet = static fn (string $order): string => "Wann,Was,Wieviel\n03/04/2026,{$order},12\n05/04/2026,B,7\n";
        $this->travelTo('2026-05-01T08:00:00Z');
        $file = $this->putIn($sheet('A'));
        $said = ['use' => true, 'means' => ['at', 'order', 'value'], 'decimal' => '.', 'days' => 'day'];

        self::assertSame(422, $this->api('POST', "{$this->address($file)}/reading")->status(), 'nothing is said yet');
        $twice = [...$said, 'means' => ['at', 'order', 'order']];
        $table = $this->api('PUT', $this->address($file), ['tables' => [$twice]])->assertOk()->json('tables.0');
        self::assertStringContainsString('Two columns are said to be the order number', $table['problem']);
        self::assertSame('You said so.', $table['columns'][1]['why']);
        $wrong = ['tables' => [[...$said, 'means' => ['at']]]];
        self::assertSame(422, $this->api('PUT', $this->address($file), $wrong)->status(), 'it has more columns');
        $table = $this->api('PUT', $this->address($file), ['tables' => [$said]])->assertOk()->json('tables.0');
        self::assertNull($table['problem']);
        self::assertSame('2026-04-03T10:00:00.000Z', $table['understood'][0]['at']);
        self::assertSame(2, $this->taken($file)['taken']);

        $next = $this->told($this->putIn($sheet('C')));
        self::assertSame(['read', 2, 1], [$next['state'], $next['lines'], $next['taken']]);
        self::assertSame(1200, (int) DB::table('conversions')->where('order_number', 'C')->value('value'));
    }

    public function test_pages_that_were_seen_are_views(): void
    {
        $sheet = "Time,Page,Visitor ID,Referrer\n"
            ."2026-10-05 09:00,https://shop.example/?utm_source=quay&utm_medium=cpc,v1,\n"
            ."2026-10-05 09:00,https://shop.example/?utm_source=quay&utm_medium=cpc,,\n"
            ."2026-10-05 09:00,https://shop.example/?utm_source=quay&utm_medium=cpc,,\n"
            ."2026-10-05 09:05,https://other.example/,v1,\n"
            ."2025-08-05 09:05,https://shop.example/,v1,\n"
            ."2026-10-05 09:06,,v1,\n";
        $told = $this->taken($this->putIn($sheet, 'visits.csv'));

        self::assertSame([6, 3], [$told['lines'], $told['taken']], 'two that read alike are two');
        self::assertSame(['no-page' => 1, 'foreign-address' => 1, 'too-old' => 1], $told['leftOut']);
        self::assertSame(0, $this->told($this->putIn($sheet, 'visits.csv'))['taken'], 'all of it is known');
        self::assertSame(
            ['quay cpc v1', 'quay cpc ', 'quay cpc '],
            DB::table('arrivals')
                ->orderByDesc('visitor')
                ->get(['source', 'medium', 'visitor'])
                ->map(static fn (object $a): string => implode(' ', (array) $a))->all(),
        );
    }

    public function test_a_sheet_that_is_not_wanted_is_put_away(): void
    {
        $file = SiteFile::query()->findOrFail($this->putIn(self::SHEET));
        self::assertFileExists($file->path());
        $this->api('DELETE', $this->address($file->id))->assertOk()->assertJson(['state' => 'failed']);

        self::assertFileDoesNotExist($file->path());
        foreach (['GET', 'DELETE'] as $method) {
            self::assertSame(409, $this->api($method, $this->address($file->id))->status());
        }
        self::assertSame(409, $this->api('POST', "{$this->address($file->id)}/reading")->status());
        self::assertSame(0, DB::table('conversions')->count());
    }

    public function test_a_sheet_that_has_been_lost_says_so(): void
    {
        $file = SiteFile::query()->findOrFail($this->putIn(self::SHEET));
        $file->letGo();
        $lost = $this->api('GET', $this->address($file->id))->assertStatus(422)->json('message');
        self::assertStringContainsString('orders.csv is not there any more. Put it in again', $lost);
        $this->api('POST', "{$this->address($file->id)}/reading")->assertOk();

        self::assertSame(['failed', "{$lost}"], [$this->told($file->id)['state'], $this->told($file->id)['problem']]);
    }

    public function test_what_nobody_answers_for_is_let_go_in_the_end(): void
    {
        $file = SiteFile::query()->findOrFail($this->putIn(self::SHEET));
        $this->travel(29)->days();
        $this->artisan('arrivals:days')->assertSuccessful();
        self::assertSame(SiteFileState::Asked, $file->refresh()->state);
        $this->travel(2)->days();
        $this->artisan('arrivals:days')->assertSuccessful();

        self::assertSame(SiteFileState::Failed, $file->refresh()->state);
        self::assertStringContainsString('Put it in again', (string) $file->problem);
        self::assertFileDoesNotExist($file->path());
    }

    public function test_a_sheet_without_headings_says_what_it_lacks(): void
    {
        $told = $this->told($this->putIn("1,2\n3,4\n"));

        self::assertSame('failed', $told['state']);
        self::assertStringContainsString('no row that looks like headings', $told['problem']);
    }

    public function test_a_workbook_s_other_tables_are_passed_over(): void
    {
        $book = new Spreadsheet();
        $book->getActiveSheet()->fromArray([['Order', 'Time', 'Value'], ['T1', '2026-10-05 09:00', 12.5]]);
        $book->createSheet()->setTitle('Notes')->fromArray([['made by hand'], ['in October']]);
        $path = (string) tempnam(sys_get_temp_dir(), 'orders');
        IOFactory::createWriter($book, 'Xlsx')->save($path);
        $told = $this->taken($this->putIn((string) file_get_contents($path), 'orders.xlsx'));
        $again = $this->told($this->putIn((string) file_get_contents($path), 'orders.xlsx'));
        unlink($path);

        self::assertSame(['read', 1, 1], [$told['state'], $told['lines'], $told['taken']]);
        self::assertSame(['read', 1, 0], [$again['state'], $again['lines'], $again['taken']]);
        self::assertSame(1250, (int) DB::table('conversions')->value('value'));
    }
}
