<?php

namespace Tests\Feature;

use App\Models\Account;
use App\Models\Import;
use App\Models\ImportStatus;
use App\Models\Node;
use App\Models\Text;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** Reports with numbers, and with names, of elements that are known. */
final class NumbersTest extends TestCase
{
    /** @param array<string, mixed> $more */
    private function look(string $text, array $more = [], string $name = 'report.csv'): TestResponse
    {
        return $this->api('POST', '/numbers', ['name' => $name, 'content' => base64_encode($text)] + $more);
    }

    /**
     * @param array<string, mixed> $more
     * @return list<list<string|null>>
     */
    private function out(string $text, array $more = [], string $delimiter = ','): array
    {
        $file = $this->api('POST', '/numbers/file', ['name' => 'r.csv', 'content' => base64_encode($text)] + $more);
        $lines = explode("\r\n", trim($file->assertOk()->baseResponse->getFile()->getContent()));

        return array_map(static fn (string $line): array => str_getcsv($line, $delimiter, '"', ''), $lines);
    }

    /** @return list<Node> some ads, each with another name */
    private static function ads(Account $account): array
    {
        return Node::query()
            ->where(['account_id' => $account->id, 'is_ad' => true])
            ->with('account')
            ->whereIn('name', DB::table('nodes')->select('name')->groupBy('name')->havingRaw('count(*) = 1'))
            ->limit(3)
            ->get()
            ->all();
    }

    /** @return array<string, string> */
    private static function slots(Node $node): array
    {
        return Text::query()->where('node_id', $node->id)->whereNull('until')->pluck('text', 'kind')->all();
    }

    public function test_names_stand_beside_numbers_in_the_sheets_own_form(): void
    {
        [$a, $b] = self::ads($this->imported());
        $text = "Report of October\r\nAd;Clicks\r\n{$a->external_id};1.200\r\n{$b->external_id};7\r\nnobody's;=1+1\r\n";
        $look = $this->look($text)->assertOk();
        self::assertSame([[0, 'number', 2, 0, 1]], array_map(
            static fn (array $c): array => [$c['at'], $c['by'], $c['known'], $c['several'], $c['unknown']],
            $look->json('columns'),
        ));
        self::assertSame($a->id, $look->json('lines.0.named.0.node'));
        self::assertStringContainsString('nothing that is known', $look->json('lines.2.notes.0'));

        $out = $this->out($text, delimiter: ';');
        self::assertSame(['Report of October'], $out[0]);
        self::assertSame(['Ad', 'name', 'Clicks', 'path', 'note'], $out[1]);
        self::assertSame([$a->external_id, $a->name, '1.200'], array_slice($out[2], 0, 3));
        self::assertStringStartsWith($a->account->name, $out[2][3]);
        self::assertSame(["nobody's", '', "'=1+1"], array_slice($out[4], 0, 3)); // no formula
    }

    public function test_numbers_stand_beside_names(): void
    {
        [$a, $b] = self::ads($this->imported());
        $out = $this->out("Ad,Clicks\n\"{$a->name}\",3\n\"{$b->name}\",4\n");
        self::assertSame(['Ad', 'number', 'Clicks', 'path', 'note'], $out[0]);
        self::assertSame([$a->external_id, $b->external_id], [$out[1][1], $out[2][1]]);
    }

    public function test_pasted_numbers_without_headings_are_read_too(): void
    {
        [$a, $b] = self::ads($this->imported());
        $look = $this->look("{$a->external_id}\n{$b->external_id}\n", name: 'pasted')->assertOk();
        $told = array_map(static fn (array $line): int => $line['named'][0]['node'], $look->json('lines'));
        self::assertSame([$a->id, $b->id], $told);
    }

    public function test_a_renamed_element_is_found_by_its_former_name_and_stands_together(): void
    {
        $account = $this->imported();
        $campaign = Node::query()->where(['account_id' => $account->id, 'depth' => 1])->firstOrFail();
        $was = $campaign->name;
        $renamed = ['set' => ['name' => 'Renamed by hand', 'slots' => self::slots($campaign)]];
        $this->standins('/edit', ['site' => 'northquay', 'id' => $campaign->external_id, ...$renamed]);
        self::assertSame(ImportStatus::Done, Import::begin($account->link, null)?->refresh()->status);
        self::assertSame([$was], DB::table('former_names')->where('node_id', $campaign->id)->pluck('name')->all());

        $text = "Campaign,Day,Clicks,CTR\n\"{$was}\",1,3,0.1\nRenamed by hand,1,4,0.2\nRenamed by hand,2,5,0.2\n";
        $apart = $this->look($text)->assertOk();
        self::assertCount(3, $apart->json('lines'));
        self::assertSame("{$was} is called Renamed by hand now", $apart->json('lines.0.notes.0'));
        self::assertSame([1, 2], $apart->json('summed'));

        $out = $this->out($text, ['summed' => [2]]);
        self::assertSame(['Campaign', 'number', 'Day', 'Clicks', 'CTR', 'of which', 'path', 'note'], $out[0]);
        // the share differs, so it keeps them apart unless a person says that it is no matter
        self::assertCount(4, $out);
        $out = $this->out(strtr($text, ['0.2' => '0.1']), ['summed' => [2]]);
        self::assertSame(['Renamed by hand', $campaign->external_id, '1', '7', '0.1', ''], array_slice($out[1], 0, 6));
        self::assertSame(['of which', 'of which', ''], array_column(array_slice($out, 2), 5));
    }

    public function test_what_is_no_table_is_refused(): void
    {
        $this->imported();
        $this->look('%PDF-1.4')->assertStatus(422)->assertJsonPath('message', 'report.csv is no table. Export CSV, '
            .'XLSX or ODS');
        $this->look('')->assertStatus(422);
        $this->api('POST', '/numbers', ['name' => 'r', 'content' => '%%%'])->assertStatus(422);
        $this->look("1\n2\n", ['table' => 3])->assertStatus(422);
        $this->look("1\n2\n", ['columns' => [['at' => 0, 'by' => 'colour']]])->assertStatus(422);
        self::assertSame([], glob(sys_get_temp_dir().'/brought-*'));
    }
}
