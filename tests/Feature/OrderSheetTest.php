<?php

namespace Tests\Feature;

use App\Models\Collector;
use Illuminate\Support\Facades\DB;
use PhpOffice\PhpSpreadsheet\IOFactory;
use PhpOffice\PhpSpreadsheet\Spreadsheet;
use Tests\TestCase;

/** Orders come in as a sheet. */
final class OrderSheetTest extends TestCase
{
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

    /** @return array<string, mixed> */
    private function putIn(string $content, string $name = 'orders.csv'): array
    {
        $body = ['name' => $name, 'content' => base64_encode($content), 'kind' => 'conversions'];
        $id = $this->api('POST', "/sites/{$this->site->id}/logs", $body)->assertStatus(201)->json('id');

        return collect($this->api('GET', "/sites/{$this->site->id}/logs")->json('items'))->firstWhere('id', $id);
    }

    public function test_each_order_counts_once_however_often_it_comes(): void
    {
        $this->imported();
        $sheet = "Shop report\nOrder ID;Ordered at;Revenue;Currency;nqcid;Goal\n"
            ."T1;2026-10-05 09:00;1.204,50;;Q7f;Booking\n"
            ."T2;05.10.2026;3,5;USD;;Booking\n"
            ."T3;2026-10-05T09:00:00+00:00;;;;\n"
            ."T1;2026-10-06 10:00;-4,50;;;\n"
            .";2026-10-05 09:00;1;;;\n"
            ."T5;some day;1;;;\n"
            ."T6;2026-10-05 09:00;many;;;\n"
            ."T7;2026-07-01 09:00;1;;;\n";
        $told = $this->putIn($sheet);

        self::assertSame(['read', 8, 4], [$told['state'], $told['lines'], $told['taken']]);
        self::assertSame(['no-order' => 1, 'no-time' => 1, 'no-value' => 1, 'too-late' => 1], $told['leftOut']);
        self::assertSame(0, $this->putIn($sheet)['taken'], 'all of it is known');
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

    public function test_a_sheet_without_orders_says_what_it_lacks(): void
    {
        $told = $this->putIn("Campaign,Clicks\nIsles,3\n");

        self::assertSame('failed', $told['state']);
        self::assertStringContainsString('heads a column of order numbers and one of times', $told['problem']);
    }

    public function test_a_workbook_s_other_tables_are_passed_over(): void
    {
        $book = new Spreadsheet();
        $book->getActiveSheet()->fromArray([['Order', 'Time', 'Value'], ['T1', '2026-10-05 09:00', 12.5]]);
        $book->createSheet()->setTitle('Notes')->fromArray([['made by hand'], ['in October']]);
        $path = (string) tempnam(sys_get_temp_dir(), 'orders');
        IOFactory::createWriter($book, 'Xlsx')->save($path);
        $told = $this->putIn((string) file_get_contents($path), 'orders.xlsx');
        unlink($path);

        self::assertSame(['read', 1, 1], [$told['state'], $told['lines'], $told['taken']]);
        self::assertSame(1250, (int) DB::table('conversions')->value('value'));
    }
}
