<?php

namespace Tests\Feature;

use App\Models\Node;
use App\Models\Text;
use Tests\SheetsIn;
use Tests\TestCase;

/** Where a table was not understood rightly, a person says how it stands in its file, and it is looked at anew. */
final class LookAgainTest extends TestCase
{
    use SheetsIn;

    private const REPORT = "Made;by;our;own;desk\nAd id;Ad;Campaign;Final URL\n1;One;Deck;https://v.example/1\n"
        ."2;Two;Deck;https://v.example/2\n";

    /**
     * @param array<string, mixed> $intake
     * @param array<string, mixed> $told
     */
    private function look(array $intake, array $told, int $status = 200): array
    {
        return $this->api('PUT', "/intakes/{$intake['id']}/look", $told + [
            'revision' => $intake['revision'],
            'title' => $intake['tables'][0]['title'],
            'headingRow' => null,
            'delimiter' => null,
            'encoding' => null,
        ])->assertStatus($status)->json();
    }

    public function test_the_heading_row_is_said_and_holds_up_to_the_import_and_out_again(): void
    {
        $this->planned();
        $intake = $this->dropped(['ads.csv' => self::REPORT]);
        self::assertSame(1, $intake['tables'][0]['headingRow'], 'found wrongly: the row with the most text');
        $intake = $this->look($intake, ['headingRow' => 2]);
        $table = $intake['tables'][0];
        self::assertSame([2, 'Ad id', '1'], [$table['headingRow'], $table['headings'][0], $table['rows'][0][0]]);
        self::assertSame('id', $table['columns'][0]['means']);
        $this->sent($intake['id'], 'more.csv', "x,y\n");
        $intake = $this->api('GET', "/intakes/{$intake['id']}")->json();
        self::assertSame(2, $intake['tables'][0]['headingRow'], 'another file changes nothing about it');
        $intake['tables'][1]['use'] = false;

        $intake = $this->read($intake);
        self::assertSame(2, $intake['counts']['rows']);
        $this->api('POST', "/intakes/{$intake['id']}/import", ['revision' => $intake['revision'], 'whole' => []])
            ->assertStatus(202);
        $ads = Node::query()->where('is_ad', true)->orderBy('external_id')->get();
        self::assertSame(['One', 'Two'], $ads->pluck('name')->all());

        $change = $this->api('POST', '/changes', [
            'account' => $ads[0]->account_id,
            'title' => 'x',
            'texts' => [['node' => $ads[0]->id, 'slot' => 'landing', 'text' => 'https://v.example/new']],
        ])->json('id');
        $this->api('POST', "/changes/{$change}/application")->assertStatus(202);
        $sheet = $this->actingAs($this->editor)
            ->get("/api/v1/clients/{$this->client->id}/changes/{$change}/sheet?as=csv");
        self::assertSame(
            "Made;by;our;own;desk\n\"Ad id\";\"Final URL\"\n1;https://v.example/new\n",
            str_replace("\r", '', $sheet->assertOk()->streamedContent()),
        );
    }

    public function test_the_delimiter_and_the_encoding_are_said(): void
    {
        $row = "1;M\u{c3}\u{bc}he, 1;https://v.example/1\n";
        $intake = $this->dropped(['ads.csv' => "Ad id;Ad, or so;Final URL\n{$row}"]);
        self::assertSame(['Ad id;Ad', ' or so;Final URL'], $intake['tables'][0]['headings'], 'found wrongly');
        $intake = $this->look($intake, ['delimiter' => ';', 'encoding' => 'Windows-1252']);
        self::assertSame("M\u{c3}\u{192}\u{c2}\u{bc}he, 1", $intake['tables'][0]['rows'][0][1]);
        self::assertSame('Windows-1252', $intake['tables'][0]['form']['encoding']);
        $intake = $this->look($intake, ['delimiter' => ';']);
        self::assertSame("M\u{c3}\u{bc}he, 1", $intake['tables'][0]['rows'][0][1], 'what is not said is found');
        self::assertSame(1, $this->read($intake)['counts']['rows'], 'and its rows are read like that');
    }

    public function test_what_can_not_be_is_refused_and_nothing_changes(): void
    {
        $intake = $this->dropped(['ads.csv' => "Ad id;Ad;Final URL\n1;M\xFChe;https://v.example/1\n"]);
        self::assertSame('Windows-1252', $intake['tables'][0]['form']['encoding']);
        $told = $this->look($intake, ['encoding' => 'UTF-8'], 422);
        self::assertStringContainsString('ads.csv can\'t be UTF-8', $told['message']);
        $this->look($intake, ['headingRow' => 41], 422);
        $this->look($intake, ['delimiter' => 'x'], 422);
        $this->look($intake, ['title' => 'nowhere'], 422);
        $this->look($intake, ['revision' => $intake['revision'] + 1], 409);
        self::assertSame($intake, $this->api('GET', "/intakes/{$intake['id']}")->json());
    }

    public function test_custom_parameters_in_one_cell_are_read_in_the_form_that_is_said(): void
    {
        $intake = $this->dropped(['ads.csv' => "Campaign ID,Ad ID,Ad,Custom parameters\n"
            ."7,9,Deck,season:winter|label:isles\n"]);
        $found = $intake['tables'][0]['columns'][3];
        self::assertSame(['custom', '|', ':'], [$found['means'], $found['form']['pair'], $found['form']['is']]);
        $told = $intake;
        $told['tables'][0]['columns'][3]['form'] = ['pair' => ';', 'is' => '=', 'open' => '', 'close' => ''];
        $told = $this->read($told);
        self::assertSame(1, array_sum($told['counts']['problems']), 'what was said counts');
        self::assertSame('=', $told['tables'][0]['columns'][3]['form']['is'], 'and is told again');
        $told['tables'][0]['columns'][3]['form'] = $found['form'];
        $intake = $this->read($told);
        $this->api('POST', "/intakes/{$intake['id']}/import", ['revision' => $intake['revision'], 'whole' => []])
            ->assertStatus(202);
        self::assertSame(
            ['label' => 'isles', 'season' => 'winter'],
            Text::query()->where('kind', 'custom')->orderBy('name')->pluck('text', 'name')->all(),
        );
    }
}
